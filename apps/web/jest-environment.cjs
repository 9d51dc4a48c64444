// A browser for component tests: jsdom, with the web globals that Node has and jsdom hides.
const { TestEnvironment } = require('jest-environment-jsdom');

module.exports = class extends TestEnvironment {
  channels = [];

  async setup() {
    await super.setup();
    const { channels } = this;
    // An open port would keep the test run alive: all are closed with the page.
    class PageMessageChannel extends MessageChannel {
      constructor() {
        super();
        channels.push(this);
      }
    }
    Object.assign(this.global, { TextEncoder, TextDecoder, Request, Response, Headers, structuredClone, MessagePort });
    this.global.MessageChannel = PageMessageChannel;
  }

  async teardown() {
    for (const { port1, port2 } of this.channels) {
      port1.close();
      port2.close();
    }
    await super.teardown();
  }
};
