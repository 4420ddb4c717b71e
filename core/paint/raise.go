package paint

// mostWhite is the largest share of white that a mixture is raised with.
const mostWhite = 0.999

// AsLight is the difference in L* up to which two mixtures are as light.
const AsLight = 0.5

// ShareOfWhite is how much of a raised mixture is white (a share by volume, 0 to 0.999)
// where its lightness is that asked for, or as near as the white brings it. Light says the
// L* of a mixture, and rises with the white in it.
func ShareOfWhite(m, white *Mixture, lightness float64, light func(*Mixture) float64) float64 {
	low, high := 0.0, mostWhite
	for range 40 {
		mid := (low + high) / 2
		if raised := Between(m, white, mid); light(&raised) < lightness {
			low = mid
		} else {
			high = mid
		}
	}
	return high
}
