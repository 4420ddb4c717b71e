package paint

import (
	"flag"
	"math"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
)

// The undertone is the most chromatic rung: a fine walk down the whole ladder
// finds nothing better, for single paints and for mixtures.
func TestUndertoneIsTheMostChromaticRung(t *testing.T) {
	check := func(name string, m Mixture) {
		u, bare := m.Undertone(), m.withoutWhite()
		for i := range 2000 {
			share := math.Pow(leastShare, float64(i)/1999)
			let := bare.LetDown(share)
			s := let.Masstone()
			c := s.OKLab(colour.D65).Chroma()
			require.LessOrEqual(t, c, u.Chroma+2e-5, "%s: share %v beats %v", name, share, u.Share)
		}
	}
	for _, p := range Library() {
		check(p.ID, p.Alone())
	}
	lib := Library()
	for i := 0; i < len(lib); i += 3 {
		for j := i + 1; j < len(lib); j += 5 {
			m := Between(&lib[i].alone, &lib[j].alone, 0.2)
			check(lib[i].ID+"+"+lib[j].ID, m)
		}
	}
}

func TestUndertoneOfAStrongDarkPaint(t *testing.T) {
	m := mix(t, "PV23", 1)
	u := m.Undertone()
	mass := m.Masstone()
	assert.Greater(t, u.Chroma, mass.OKLab(colour.D65).Chroma(), "the mass hides its colour")
	assert.Less(t, u.Share, 0.5)
	assert.Equal(t, "violet", u.HueWord())
	assert.Equal(t, Clean, u.Verdict)
}

func TestVerdicts(t *testing.T) {
	for _, c := range []struct {
		name string
		m    Mixture
		want Verdict
	}{
		{"a bright pair", mix(t, "PY184", 39, "PB15:3", 1), Clean},
		{"white", mix(t, "PW6", 1), Neutral},
		{"black and white", mix(t, "PBk7", 1, "PW6", 5), Neutral},
		{"red with its complement", mix(t, "PR254", 1, "PG7", 1), Muddy},
		{"an orange-leaning yellow with a violet-leaning blue", mix(t, "PY65", 3, "PB29", 1), Muddy},
	} {
		u := c.m.Undertone()
		assert.Equal(t, c.want, u.Verdict, "%s: %+v", c.name, u)
	}
}

func TestGreyIsSpokenOfByItsLeaning(t *testing.T) {
	assert.Equal(t, "grey, leaning blue", Undertone{Chroma: 0.01, WheelHue: 241}.HueWord())
	assert.Equal(t, "blue", Undertone{Chroma: 0.1, WheelHue: 241}.HueWord())
}

var writeTable = flag.Bool("write-envelope", false, "write data/envelope.csv anew")

// The table of the envelope is that of this library, but for what processors round otherwise.
func TestEnvelopeIsThatOfTheLibrary(t *testing.T) {
	worked, best := workOutEnvelope(curves())
	text := writeEnvelope(LibraryVersion(), worked, best)
	if *writeTable {
		require.NoError(t, os.WriteFile("data/envelope.csv", []byte(text), 0o644))
	}
	kept, of, err := readEnvelope(envelopeCSV, curves())
	const changed = "the library or how its envelope is worked out has changed: run go test ./core/paint -run TestEnvelopeIsThat -write-envelope"
	require.NoError(t, err, changed)
	require.InDeltaSlice(t, worked[:], kept[:], 1e-9, changed)
	for i, b := range best {
		assert.Equal(t, []*Paint{b.a, b.b}, []*Paint{of[i].a, of[i].b}, changed)
		assert.InDeltaSlice(t, []float64{b.w, b.c, b.share}, []float64{of[i].w, of[i].c, of[i].share}, 1e-9, changed)
	}
	e, read, err := readEnvelope(text, curves())
	require.NoError(t, err)
	assert.Equal(t, worked, e)
	assert.Equal(t, best, read)
	for _, broken := range []string{"", "another version\n", strings.Replace(text, "PY", "PX", 1), strings.Replace(text, ",0.", ",zero.", 1), text[:len(text)/2]} {
		_, _, err := readEnvelope(broken, curves())
		assert.Error(t, err)
	}
}

func TestEnvelopeLiesOverEverySample(t *testing.T) {
	for w := 0.0; w < 360; w++ {
		assert.Greater(t, Envelope(w), 0.08, "no gap at %v", w)
	}
	shares := Shares(pairSamples, 1, 1)
	for i := range Library() {
		for _, s := range pairsOf(Library(), i, shares) {
			require.LessOrEqual(t, s.c, Envelope(s.w)+1e-12)
		}
	}
}

func TestEnvelopeOnMadeUpBins(t *testing.T) {
	var e hueBins
	e[0], e[10] = 0.1, 0.2
	e.bridge()
	assert.InDelta(t, 0.15, e[5], 1e-12, "a gap is bridged")
	assert.InDelta(t, 0.2-0.1*31/62, e[41], 1e-12, "over the end of the turn too")
	e[5] = 0.05
	e.smooth()
	assert.Greater(t, e[5], 0.05, "a notch is rounded off")
	assert.GreaterOrEqual(t, e[10], 0.2, "a peak stays")
	e.cover([]hueSample{{w: 23, c: 0.4}, {w: 359.9, c: 0.3}})
	assert.GreaterOrEqual(t, e.at(23)+1e-12, 0.4)
	assert.GreaterOrEqual(t, e.at(359.9)+1e-12, 0.3)
}

func TestShares(t *testing.T) {
	s := Shares(33, 1, 1)
	assert.Len(t, s, 33)
	assert.Equal(t, 0.0, s[0])
	assert.InDelta(t, 0.5, s[16], 1e-12)
	assert.Equal(t, 1.0, s[32])
	for i := 1; i < 33; i++ {
		assert.Greater(t, s[i], s[i-1])
	}
	weak := Shares(33, 1, 0.5)
	assert.InDelta(t, 2.0/3, weak[16], 1e-12, "of a tube half as strong it takes twice as much")
}

func TestMedia(t *testing.T) {
	for id, x := range map[string]float64{"watercolour": 1.2, "acrylic": 8, "oil": 12, "gouache": math.Inf(1), "tempera": math.Inf(1)} {
		m, err := ParseMedium(id)
		require.NoError(t, err)
		assert.Equal(t, x, m.Thickness)
		assert.LessOrEqual(t, m.DryFrom, m.DryTo)
	}
	_, err := ParseMedium("finger paint")
	assert.ErrorContains(t, err, "watercolour")
	assert.Len(t, Media(), 5)
}

func TestLadder(t *testing.T) {
	m := mix(t, "PB29", 1)
	acrylic, _ := ParseMedium("acrylic")
	rungs := m.Ladder(acrylic, true, 9)
	assert.Equal(t, 1.0, rungs[0].Share)
	assert.InDelta(t, 0.003, rungs[8].Share, 1e-12)
	assert.Equal(t, m.AsPainted(acrylic, true), rungs[0].Spectrum)
	water, _ := ParseMedium("watercolour")
	assert.Empty(t, rungs[0].Thick)
	rungs = m.Ladder(water, false, 7)
	assert.Equal(t, 2.0, rungs[0].Thickness)
	assert.InDelta(t, 1.0/32, rungs[6].Thickness, 1e-12)
	var thick []string
	var parts []float64
	for _, r := range rungs {
		assert.Equal(t, 1.0, r.Share, "water thins, it adds no white")
		thick, parts = append(thick, r.Thick), append(parts, r.Water)
	}
	assert.Equal(t, []string{"butter", "cream", "milk", "tea", "", "", ""}, thick)
	assert.InDeltaSlice(t, []float64{0, 1, 3, 7, 15, 31, 63}, parts, 1e-9)
}

func BenchmarkUndertone(b *testing.B) {
	m := mix(b, "PY74", 8, "PB15:3", 1)
	Envelope(0)
	b.ReportAllocs()
	for b.Loop() {
		m.Undertone()
	}
}

func BenchmarkEnvelope(b *testing.B) {
	for b.Loop() {
		buildEnvelope(reachedBy(Library()))
	}
}
