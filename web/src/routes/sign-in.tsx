export { FirstPassword, OwnPassword } from '@/features/session/own-password'
export { SignInForm as SignIn } from '@/features/session/sign-in-form'
