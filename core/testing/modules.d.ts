declare module 'gltf-validator' {
  interface Report {
    readonly issues: {
      readonly messages: readonly { readonly severity: number; readonly code: string; readonly message: string }[];
    };
  }
  const validator: { validateBytes(bytes: Uint8Array): Promise<Report> };
  export default validator;
}
