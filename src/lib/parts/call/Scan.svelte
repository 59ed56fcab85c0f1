<script lang="ts">
  import { onDestroy } from 'svelte';
  import Act from '../Act.svelte';

  /** Reads a code from the screen of the other phone. */
  let { take }: { take: (code: string) => void } = $props();
  let video = $state<HTMLVideoElement>();
  let looking = $state(false);
  let said = $state('');
  let end: () => void = () => {};
  onDestroy(() => end());

  async function look() {
    looking = true;
    said = '';
    try {
      const { rearCamera, QRCanvas, frameLoop } = await import('qr/dom.js');
      const camera = await rearCamera(video!);
      const canvas = new QRCanvas();
      const cancel = frameLoop(() => {
        void camera.readFrame(canvas).then((found) => {
          const code = Array.isArray(found) ? found.find((f) => typeof f === 'string') : found;
          if (typeof code !== 'string' || !looking) return;
          end();
          take(code);
        });
      });
      end = () => {
        cancel();
        camera.stop();
        looking = false;
        end = () => {};
      };
    } catch (error) {
      looking = false;
      said = `No camera here (${(error as Error).name}): type the code.`;
    }
  }
</script>

<video bind:this={video} class:looking playsinline></video>
<Act onclick={() => (looking ? end() : look())}>{looking ? 'Stop looking' : 'Scan it'}</Act>
{#if said}<p class="quiet">{said}</p>{/if}

<style>
  video {
    display: none;
    width: 100%;
    max-height: 16rem;
    background: var(--ink);
  }
  .looking {
    display: block;
  }
</style>
