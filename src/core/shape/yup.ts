import { setLocale } from 'yup';

// The library's own sentences repeat the path and quote the value; ours are ends of sentences that begin with the path.
setLocale({
  mixed: {
    default: 'is not as it must be',
    required: 'is missing',
    defined: 'is missing',
    notNull: 'must not be null',
    notType: ({ type }) => `must be ${type === 'array' ? 'a list' : type === 'object' ? 'an object' : `a ${type}`}`,
    oneOf: 'must be one of ${values}',
  },
  string: { max: 'must be at most ${max} characters long', min: 'must be at least ${min} characters long' },
  number: { min: 'must be at least ${min}', max: 'must be at most ${max}', integer: 'must be a whole number' },
  object: { noUnknown: 'has parts that are not known: ${unknown}' },
  array: { min: 'must have at least ${min}', max: 'must have at most ${max}' },
});

export * from 'yup';
