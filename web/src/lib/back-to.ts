/** Where to go back to after a form: a path of this application, nothing else. */
export function backTo(form: FormData): string {
  const back = String(form.get('back') ?? '/');
  return /^\/(?![/\\])/.test(back) ? back : '/';
}
