/** The part of the second DXF parser that the tests use. */
declare module 'dxf' {
  export interface Entity {
    type: string;
    layer: string;
    closed?: boolean;
    string?: string;
    vertices?: { x: number; y: number }[];
  }
  export function parseString(text: string): { entities: Entity[] };
}
