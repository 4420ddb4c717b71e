package journal

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

func TestWhatCameOfAPlaceIsSaidOnce(t *testing.T) {
	at := colour.Lab{L: 50, A: -20, B: 10}
	read := func(l float64, doubt string) *Reading {
		return &Reading{Region: "green", Reading: paint.Reading{Lab: colour.Lab{L: l, A: -20, B: 10}}, Doubt: doubt}
	}
	caused := func(c ...Cause) *Explained { return &Explained{Computed: at, Causes: c} }
	for _, c := range []struct {
		name  string
		place AccountPlace
		says  string
		de    float64
	}{
		{"nothing", AccountPlace{}, "not read", 0},
		{"wet", AccountPlace{Wet: read(48, "")}, "read wet alone", 0},
		{"doubted", AccountPlace{Dry: read(48, "it mirrors"), Explained: nil}, "doubted: it mirrors", 2},
		{"as computed", AccountPlace{Dry: read(50, ""), Explained: &Explained{Computed: at, AsComputed: true}}, "as computed", 0},
		{"slipped", AccountPlace{Dry: read(40, ""), Explained: &Explained{Computed: read(40, "").Lab, AsComputed: true}}, "as what was really mixed is computed", 10},
		{"not explained", AccountPlace{Dry: read(40, ""), Explained: caused()}, "a little darker: not explained", 10},
		{"one cause", AccountPlace{Dry: read(40, ""), Explained: caused(Cause{Says: "it lies thin", Leaves: 0.84})}, "a little darker: it lies thin (leaves 0.8)", 10},
		{"two causes", AccountPlace{Dry: read(40, ""), Explained: caused(Cause{Says: "this"}, Cause{Says: "that", Leaves: 1})}, "a little darker: this (leaves 0.0); or that (leaves 1.0)", 10},
	} {
		c.place.Computed = at
		assert.Equal(t, c.says, relative(c.place.CameOf()), c.name)
		de, dry := c.place.Difference()
		assert.Equal(t, c.place.Dry != nil, dry, c.name)
		assert.InDelta(t, c.de, de, 1, c.name)
	}
}

// relative leaves out how much darker: the words for that are colour's own.
func relative(says string) string {
	for _, much := range []string{"much darker", "darker"} {
		if len(says) > len(much) && says[:len(much)] == much {
			return "a little darker" + says[len(much):]
		}
	}
	return says
}

func TestAStrengthIsSpokenOfFromATenth(t *testing.T) {
	for times, spoken := range map[float64]bool{1: false, 1.05: false, 0.95: false, 1.11: true, 0.9: true, 2: true, 0.5: true} {
		assert.Equal(t, spoken, SpokenOf(times), times)
	}
}

func TestAPlaceSpeaksOfItsTubesUnlessSomethingElseIsItsCause(t *testing.T) {
	for _, c := range []struct {
		kinds []CauseKind
		of    bool
	}{
		{nil, true}, {[]CauseKind{OfTube}, true}, {[]CauseKind{OfAmount}, true}, {[]CauseKind{Contamination}, false}, {[]CauseKind{TooThin}, false},
		{[]CauseKind{Contamination, OfTube}, true}, {[]CauseKind{Contamination, TooThin}, false},
	} {
		var e Explained
		for _, k := range c.kinds {
			e.Causes = append(e.Causes, Cause{Kind: k})
		}
		assert.Equal(t, c.of, e.OfItsTubes(), c.kinds)
	}
}

// The noise of a place is a covariance: what strays along one direction is in units of it,
// and what strays across is not.
func TestNoiseGoesAlongItsOwnWay(t *testing.T) {
	bare := noise{{1}, {0, 1}, {0, 0, 1}}
	along := [3]float64{3, 4, 0}
	l := bare.with(along)
	squared := func(d [3]float64) (sum float64) {
		for _, v := range l.in(d) {
			sum += v * v
		}
		return sum
	}
	assert.InDelta(t, 25.0/26, squared(along), 1e-9, "25 over 1 and 25")
	assert.InDelta(t, 25, squared([3]float64{-4, 3, 0}), 1e-9, "across it is as it was")
	assert.InDelta(t, 4, squared([3]float64{0, 0, 2}), 1e-9)
	for _, d := range [][3]float64{along, {1, -2, 0.5}, {0, 0, 1}} {
		in := l.in(d)
		assert.InDelta(t, length(d), l.size(in[:]), 1e-9, "back in CIEDE2000")
	}
}

func length(d [3]float64) float64 {
	l := noise{{1}, {0, 1}, {0, 0, 1}}
	return l.size(d[:])
}
