/** Lets whatever has come in meanwhile be taken first: a message to itself goes behind those that wait. */
export const turn = (): Promise<void> =>
  new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });
