export function installed(): string;
export function installBrowser(): Promise<void>;
