/*
 * Says on the page why Cuaderno isn't there: the browser is too old for it, or its code didn't come over the line.
 * It stands alone, in the JavaScript of 2009, since it is what browsers read that can read nothing else of ours.
 *
 * Asked for is what the last two years of Chromium, Firefox and Safari have, by what we use: built-ins of ES2023, `:has`
 * and popovers.
 */
(function () {
  'use strict';

  function isTooOld() {
    return !(
      'noModule' in document.createElement('script') &&
      typeof Array.prototype.toSorted === 'function' &&
      typeof window.structuredClone === 'function' &&
      'popover' in document.createElement('div') &&
      window.CSS.supports('selector(:has(a))')
    );
  }

  function element(name, text, parent) {
    var made = document.createElement(name);
    made.textContent = text;
    parent.appendChild(made);
    return made;
  }

  /** Puts a page of plain words where the application would be; once. */
  function tell(title, words, again) {
    if (document.getElementById('not-there')) return;
    var root = document.querySelector('cua-root');
    var main = document.createElement('main');
    main.id = 'not-there';
    main.setAttribute('role', 'alert');
    main.style.cssText =
      'max-width: 30em; margin: 12vh auto; padding: 0 1em; font: 1.15em/1.5 sans-serif';
    element('h1', title, main);
    for (var i = 0; i < words.length; i++) element('p', words[i], main);
    if (again) {
      var button = element('button', 'Reload', main);
      button.style.cssText = 'min-height: 44px; padding: 0 1.5em; font: inherit';
      button.onclick = function () {
        location.reload();
      };
    }
    root.parentNode.replaceChild(main, root);
  }

  if (isTooOld()) {
    // The application asks for this before it begins.
    document.documentElement.setAttribute('data-too-old', '');
    tell('This browser is too old for Cuaderno', [
      'Update it, or open this page in a newer one: Chrome, Edge, Firefox or Safari of the last two years.',
      'On an older tablet or phone, update its system first. If that can’t be done, use another device for now.',
    ]);
    return;
  }
  // What doesn't come says so to nobody but here: errors of scripts don't bubble.
  document.addEventListener(
    'error',
    function (event) {
      if (event.target && event.target.nodeName === 'SCRIPT')
        tell(
          'Cuaderno didn’t load',
          ['Check the connection, then reload the page. Nothing that was written is lost.'],
          true,
        );
    },
    true,
  );
})();
