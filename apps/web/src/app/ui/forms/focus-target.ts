/** What has the focus of a control of a form: the field itself, or that which is within one of PrimeNG's. */
export function focusTarget(control: HTMLElement): HTMLElement {
  if (control.matches('input, textarea')) return control;
  return (
    control.querySelector<HTMLElement>('input:not([tabindex="-1"]), [tabindex="0"]') ?? control
  );
}
