import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsNotEmpty,
  IsString,
  MaxLength,
} from 'class-validator';
import { MOST_COLUMNS } from './row-requests.ts';

export class NoteBody {
  @IsString()
  @MaxLength(4000)
  text!: string;
}

export class ColumnSetBody {
  @IsString()
  subject = 'companies';

  @IsString()
  @IsNotEmpty({ message: 'name must not be empty' })
  @MaxLength(80)
  name!: string;

  @IsArray()
  @ArrayMinSize(1, { message: 'columns must name at least one column' })
  @ArrayMaxSize(MOST_COLUMNS)
  @IsString({ each: true })
  columns!: string[];

  /** Whether the sheet of the subject opens with it in this workspace. */
  @IsBoolean()
  usual = false;
}
