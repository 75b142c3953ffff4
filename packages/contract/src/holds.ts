import { registerDecorator, type ValidationArguments, type ValidationOptions } from 'class-validator';

/** What the core holds a value to. */
interface Schema {
  readonly safeParse: (value: unknown) => {
    readonly success: boolean;
    readonly error?: {
      readonly issues: readonly { readonly path: readonly PropertyKey[]; readonly message: string }[];
    };
  };
}

/**
 * A field is held to the core's own schema for it, so that what comes over the wire and what the core takes cannot drift
 * apart: the place within the field and the reason are the core's.
 */
export function Holds(schema: Schema, options?: ValidationOptions): PropertyDecorator {
  return (target, property) =>
    registerDecorator({
      name: 'holds',
      target: target.constructor,
      propertyName: String(property),
      options,
      validator: {
        validate: (value: unknown) => schema.safeParse(value).success,
        defaultMessage: ({ value, property: name }: ValidationArguments = {} as ValidationArguments) => {
          const issue = schema.safeParse(value).error?.issues[0];
          const place = [name, ...(issue?.path ?? [])].map(String).join('.');
          return `${place}: ${issue?.message ?? 'this cannot be taken'}`;
        },
      },
    });
}
