// Sets the chosen light before the first paint; kept apart from the page so that no inline script is needed.
try {
  const light = localStorage.getItem('hekto-light');
  if (light === 'attic' || light === 'sun' || light === 'day') document.documentElement.dataset.light = light;
} catch {
  // Storage may be shut off; the day light stays.
}
