/** A command of the program, as it is typed in a checkout and where the package is installed. */
export function StartCommand(props: { children: string }) {
  return (
    <>
      <code>./run {props.children}</code> (installed: <code>newknot {props.children}</code>)
    </>
  );
}
