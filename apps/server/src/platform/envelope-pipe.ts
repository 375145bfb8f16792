import { type ArgumentMetadata, Injectable, UnprocessableEntityException, ValidationPipe } from '@nestjs/common';

/**
 * Checks envelopes only: what lies inside of an object or a list in them is left to the core. Going through it here
 * would cost the square of its size.
 */
@Injectable()
export class EnvelopePipe extends ValidationPipe {
  constructor() {
    super({
      whitelist: true,
      forbidNonWhitelisted: true,
      stopAtFirstError: true,
      exceptionFactory: (errors) =>
        new UnprocessableEntityException(errors.flatMap((error) => Object.values(error.constraints ?? {})).join('; ')),
    });
  }

  override async transform(value: unknown, metadata: ArgumentMetadata): Promise<unknown> {
    if (value === null || typeof value !== 'object') return super.transform(value, metadata);
    await super.transform(
      Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, emptied(inner)])),
      metadata,
    );
    return value;
  }
}

function emptied(value: unknown): unknown {
  if (value === null || typeof value !== 'object') return value;
  return Array.isArray(value) ? [] : {};
}
