import { IsInt, Max, Min, ValidateIf } from 'class-validator';

/** The largest whole number a column of versions holds. */
const LARGEST = 2 ** 31 - 1;

/** A version, an edition or a count that goes into a column of whole numbers: never more than it can hold. */
export const IsVersion =
  (least: 0 | 1, message: string): PropertyDecorator =>
  (target, key) => {
    Min(least, { message })(target, key);
    Max(LARGEST, { message })(target, key);
    IsInt({ message })(target, key);
  };

/** May be left out; nothing else stands for that, null neither: it is refused by its field. */
export const MayBeLeftOut = (): PropertyDecorator => ValidateIf((_, value) => value !== undefined);
