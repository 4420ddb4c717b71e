package journal

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

// wheelOf is a triad's wheel as it is computed in gouache, its blue of some strength.
func wheelOf(t testing.TB, blue string, strength float64) (ring []Step, placed []Placed, in paint.Medium) {
	t.Helper()
	in = gouache(t)
	tube, err := paint.Find(blue)
	require.NoError(t, err)
	tube, err = tube.Tube(tube.ID, strength)
	require.NoError(t, err)
	system, err := wheel.Selection{Kind: wheel.RYB, Roles: [3][]string{{"PY184"}, {"PR254"}, {blue}}}.System(func(id string) (*paint.Paint, error) {
		if id == blue {
			return tube, nil
		}
		return paint.Find(id)
	})
	require.NoError(t, err)
	sheet := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{}, bench.Usual(in))
	for i := range sheet.Regions {
		r := &sheet.Regions[i]
		look := r.Appearance(in, false)
		ring = append(ring, Step{Label: r.Label, Home: r.Home, Lab: look.Lab(), Paints: r.Recipe.Plain()})
		placed = append(placed, Placed{Home: r.Home, Hue: HueOf(r.Label), Colour: look.Lab()})
		for _, p := range r.Recipe.Plain() {
			placed[i].Paints = append(placed[i].Paints, p.Paint)
		}
	}
	return ring, placed, in
}

func TestWheelsDifferHueByHue(t *testing.T) {
	_, usual, _ := wheelOf(t, "PB29", 1)
	_, phthalo, _ := wheelOf(t, "PB15:3", 1)
	says := strings.Join(Differ(phthalo, usual), "\n")
	assert.Regexp(t, `(?m)^Greens: .*phthalo blue green shade in the place of ultramarine blue\.$`, says)
	assert.NotContains(t, says, "Yellows", "a yellow alone is the same")
	assert.NotContains(t, says, "Greys", "a violet slot is spoken of as one, however dark")

	assert.Equal(t, []string{"No hue differs by more than an eye sees."}, Differ(usual, usual))
	assert.Equal(t, []string{"They have no slot in common."}, Differ(usual[:3], usual[6:]))

	// The same parts of a tube that is stronger.
	_, strong, _ := wheelOf(t, "PB29", 2)
	for i := range strong {
		strong[i].Colour.L -= 3
	}
	assert.Contains(t, strings.Join(Differ(strong, usual), "\n"), "the ultramarine blue is taken for 2 times as strong")
}

func TestJumpsOfAPaintedWheelAreMended(t *testing.T) {
	ring, _, in := wheelOf(t, "PB29", 1)
	all := func(int) bool { return true }
	itself := func(p *paint.Paint) *paint.Paint { return p }
	var green, blueGreen int
	for i, s := range ring {
		switch s.Label {
		case "green":
			green = i
		case "blue-green":
			blueGreen = i
		}
	}
	was := Jumps(ring, all, in, itself)
	// A blue-green that was painted as the red is.
	for _, s := range ring {
		if s.Label == "red" {
			ring[blueGreen].Lab = s.Lab
		}
	}
	jumps := Jumps(ring, all, in, itself)
	require.Greater(t, len(jumps), len(was)-1)
	var found *Jump
	for i := range jumps {
		if jumps[i].From == "blue-green" && jumps[i].To == "green" || jumps[i].From == "green" && jumps[i].To == "blue-green" {
			found = &jumps[i]
		}
	}
	require.NotNil(t, found, "the green lies far from it")
	if found.Mend != nil {
		share := found.Mend.Share
		assert.Greater(t, share, 0.0)
		assert.Less(t, share, 1.0)
	}
	unread := func(i int) bool { return i != green }
	for _, j := range Jumps(ring, unread, in, itself) {
		assert.NotContains(t, []string{j.From, j.To}, "green", "what was not read has no jumps")
	}
	assert.Empty(t, Jumps(ring[:4], all, in, itself), "too few to tell one from the others")
}

func TestNextTimeSaysWhatToDoOtherwise(t *testing.T) {
	blue, err := paint.Find("PB29")
	require.NoError(t, err)
	place := func(c ...Cause) Explained { return Explained{Causes: c} }
	got := NextTime([]string{"green", "violet", "orange", "blue-green", "red", "red-violet"}, []Explained{
		place(Cause{Kind: Contamination, Paint: blue}), place(Cause{Kind: OfTube, Paint: blue, Amount: 1.6}), place(), place(Cause{Kind: OfAmount, Paint: blue, Amount: 0.5}),
		place(Cause{Kind: TooThin}), place(Cause{Kind: OfTube, Paint: blue, Amount: 1.6}),
	}, nil)
	assert.Equal(t, []string{
		"Rinse before the green, or wash thoroughly: ultramarine blue got into it.",
		"Less ultramarine blue: the tube is about 1.6 times as strong.",
		"More ultramarine blue in the blue-green.",
		"Lay the red thicker, or a second time.",
	}, got)
}

func TestWhatWasAnsweredIsNotAskedForAgain(t *testing.T) {
	blue, err := paint.Find("PB29")
	require.NoError(t, err)
	scarlet, err := paint.Find("PR255")
	require.NoError(t, err)
	of := func(kind CauseKind, p *paint.Paint, amount float64) Explained {
		return Explained{Causes: []Cause{{Kind: kind, Paint: p, Amount: amount}}}
	}
	reading, err := paint.LabReading(colour.Lab{L: 35, A: 25, B: -10}, paint.Eye, false, gouache(t))
	require.NoError(t, err)
	step := path.New(blue, scarlet).Find(reading)
	all := NextTime([]string{"green", "violet", "red-violet", "orange"}, []Explained{of(OfTube, blue, 1.6), of(OfTube, scarlet, 0.55), of(OfAmount, blue, 2), of(Contamination, blue, 0.1)},
		[]Jump{{From: "violet", To: "red-violet", Mend: &step}})
	require.Len(t, all, 5)
	says := "A greener blue. " + strings.Join(all, " ")
	assert.Equal(t, says, Unanswered(says, nil, false))
	assert.Equal(t, "A greener blue. "+strings.Join(all[1:], " "), Unanswered(says, []string{blue.ShortName()}, false))
	assert.Equal(t, "A greener blue. "+all[3], Unanswered(says, []string{blue.ShortName(), scarlet.ShortName()}, true))
	for _, one := range all[:3] {
		assert.Empty(t, Unanswered(one, []string{blue.ShortName(), scarlet.ShortName()}, true), one)
	}
}

func TestTubesThatNeverMeetAreToldBeforeTheyArePainted(t *testing.T) {
	in := gouache(t)
	split, err := wheel.Selection{Kind: wheel.Split, Roles: [3][]string{{"PY3", "PY65"}, {"PR254", "PR122"}, {"PB29", "PB15:3"}}}.System(paint.Find)
	require.NoError(t, err)
	w := wheel.Build(split, wheel.Options{})
	set := bench.Usual(in)
	bare, circles := bench.Wheel(w, bench.Extras{}, set), bench.Wheel(w, bench.Extras{Neutral: true}, set)
	assert.Len(t, Groups(&bare), 3)
	assert.Len(t, Groups(&circles), 1)
	mends := []Mend{{Sheet: func() *bench.Sheet { return &bare }, Says: "Not this."}, {Sheet: func() *bench.Sheet { return &circles }, Says: "The circles."}}
	says := Apart(&bare, mends)
	assert.Contains(t, says, "3 groups of tubes never meet")
	assert.True(t, strings.HasSuffix(says, " The circles."), says)
	assert.Empty(t, Apart(&circles, mends))
	assert.Contains(t, Apart(&bare, nil), "A few tints")
}
