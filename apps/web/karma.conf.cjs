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
        flags: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
      },
    },
    reporters: ['dots'],
    colors: false,
    restartOnFileChange: false,
  });
};
