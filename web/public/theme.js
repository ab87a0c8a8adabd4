// Sets the theme before the first paint, so that night does not flash white.
try {
  const theme = localStorage.getItem('theme');
  if (theme === 'day' || theme === 'night') document.documentElement.dataset.theme = theme;
} catch {
  // Without storage the system's theme is taken.
}
