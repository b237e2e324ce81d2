/** The mark of the code that compiles and simulates; the build puts it in. */
declare const ENGINE_MARK: string;
