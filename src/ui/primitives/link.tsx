import NextLink from "next/link";
import type { ComponentProps } from "react";

/**
 * A link to another page, which is asked for when it is gone to. Every page is made anew for each request from what is in the
 * database; to make all that a page leads to beforehand costs the server more than it spares a person.
 */
export function Link(props: ComponentProps<typeof NextLink>) {
  return <NextLink prefetch={false} {...props} />;
}
