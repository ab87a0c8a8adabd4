import fc from 'fast-check';

// At a desk property tests try other cases each time; a check before landing tries the same ones, so that it says the same each time.
if (process.env.CI) fc.configureGlobal({ seed: 20260930 });
