import 'reflect-metadata';
import { IsObject } from 'class-validator';

/** A tape is checked by `validateTape`, which knows the universe; here it is only an object. */
export class TapeBody {
  @IsObject()
  tape!: object;
}
