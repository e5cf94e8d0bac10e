import { object, string } from 'yup';

/** A request that brings one message to be read. */
export const messageSchema = object({
  text: string().strict().defined().max(20_000, 'A message of more than 20,000 characters is not read.'),
});
