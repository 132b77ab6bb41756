module.exports = (config) => {
  config.set({
    frameworks: ['jasmine'],
    plugins: [
      require('karma-jasmine'),
      require('karma-chrome-launcher'),
      require('karma-coverage'),
    ],
    browsers: ['Quiet'],
    customLaunchers: {
      Quiet: {
        base: 'ChromeHeadless',
        flags: [
          '--no-sandbox',
          '--disable-gpu',
          '--disable-background-networking',
          '--autoplay-policy=no-user-gesture-required',
        ],
      },
    },
    // A machine that many share stands still for a minute now and then: nothing is wrong with a spec then.
    client: { jasmine: { timeoutInterval: 120_000 } },
    browserNoActivityTimeout: 300_000,
    captureTimeout: 300_000,
    reporters: ['dots'],
    colors: false,
    restartOnFileChange: false,
  });
};
