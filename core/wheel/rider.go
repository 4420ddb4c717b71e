package wheel

import (
	"fmt"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
)

// Rider is a place for a paint that rides along in a system without being one
// of its primaries.
type Rider uint8

// The riders: what tints are made with, what shades are made with, and one
// paint more that matches may use.
const (
	WhiteRider Rider = iota
	BlackRider
	BlueGreyRider
	ConvenienceRider
)

// Riders lists them.
var Riders = []Rider{WhiteRider, BlackRider, BlueGreyRider, ConvenienceRider}

// usualRiders are the library paints that ride along where nothing else does;
// there is no usual convenience paint.
var usualRiders = [...]string{"PW6", "PBk9", "blue-grey", ""}

// UsualWhite is the library paint that lightens where nothing else was chosen.
func UsualWhite() *paint.Paint { return found(usualRiders[WhiteRider]) }

var riderNames = [...]string{"white", "black", "dark blue-grey", "convenience paint"}

// String is what painters call the rider.
func (r Rider) String() string { return riderNames[r] }

// Accepts says whether a paint can ride there: a white as the white, a black as
// the black, a black or the dark blue-grey as that, and as the convenience
// paint whatever is neither white nor black.
func (r Rider) Accepts(p *paint.Paint) bool {
	f := bias.FamilyOf(p)
	switch r {
	case WhiteRider:
		return f == "white"
	case BlackRider:
		return f == "black"
	case BlueGreyRider:
		return f == "black" || p.CI == found(usualRiders[BlueGreyRider]).CI
	}
	return f != "white" && f != "black"
}

// WithRider is the system with a paint riding along. The error is for a paint that
// cannot ride there.
func (s System) WithRider(r Rider, p *paint.Paint) (System, error) {
	if !r.Accepts(p) {
		return s, fmt.Errorf("%s (%s) cannot ride along as the %s: choose another paint for it, or none", p.ID, p.Name, r)
	}
	s.riders[r] = p
	return s, nil
}

// Rider is the paint that rides along: the one chosen, or else the library's
// titanium white, bone black or dark blue-grey; nil where there is no
// convenience paint.
func (s System) Rider(r Rider) *paint.Paint {
	if s.riders[r] != nil || usualRiders[r] == "" {
		return s.riders[r]
	}
	return found(usualRiders[r])
}

func found(id string) *paint.Paint {
	p, err := paint.Find(id)
	if err != nil {
		panic(err) // the library has it, and a test asks
	}
	return p
}
