/** Stands for a CSS module where nothing is drawn: every class is called by its name. */
export default new Proxy<Record<string, string>>({}, { get: (_, name) => String(name) });
