import { SignInForm } from '@/features/session/sign-in-form'

export const SignIn = () => <SignInForm />
