import type { FormItemRule } from 'element-plus'

/** What the form says while it is filled in; the server looks again at all of it. */
export const LEAST_PASSWORD = 10

export const NAME_RULE: FormItemRule[] = [
  { required: true, message: 'Give a name to sign in by' },
  {
    pattern: /^[\p{L}\p{N}]([\p{L}\p{N}._@+ -]{0,58}[\p{L}\p{N}])?$/u,
    message: 'Letters and digits; . _ - @ + and spaces between',
    trigger: 'blur',
  },
]

export const PASSWORD_RULE: FormItemRule[] = [
  { required: true, message: 'Give a password' },
  { min: LEAST_PASSWORD, message: `${LEAST_PASSWORD} characters or more: several words do`, trigger: 'blur' },
]
