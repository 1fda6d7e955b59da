declare module 'gltf-validator' {
  interface Report {
    readonly issues: {
      readonly messages: readonly {
        readonly severity: number;
        readonly code: string;
        readonly message: string;
        readonly pointer?: string;
      }[];
    };
  }
  const validator: { validateBytes(bytes: Uint8Array, options?: { readonly maxIssues?: number }): Promise<Report> };
  export default validator;
}
