// Package ratio is whole numbers in their smallest proportion.
package ratio

// GCD is the greatest common divisor of two whole numbers, not both 0.
func GCD(a, b int) int {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}
