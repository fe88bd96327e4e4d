import type { FormItemRule } from 'element-plus'
import { say } from '@/words'

/** What the form says while it is filled in; the server looks again at all of it. */
export const LEAST_PASSWORD = 10

export const NAME_RULE: FormItemRule[] = [
  { required: true, message: say('signInRules.name') },
  {
    pattern: /^[\p{L}\p{N}]([\p{L}\p{N}._@+ -]{0,58}[\p{L}\p{N}])?$/u,
    message: say('signInRules.letters'),
    trigger: 'blur',
  },
]

export const PASSWORD_RULE: FormItemRule[] = [
  { required: true, message: say('signInRules.password') },
  { min: LEAST_PASSWORD, message: say('signInRules.long', { least: LEAST_PASSWORD }), trigger: 'blur' },
]
