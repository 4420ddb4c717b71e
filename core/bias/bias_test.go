package bias

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
)

func TestFamiliesCloseTheCircle(t *testing.T) {
	for h := 0.0; h < 360; h += 0.25 {
		n := 0
		for _, f := range families {
			if colour.Turn(h-f.from) < colour.Turn(f.to-f.from) {
				n++
			}
		}
		require.Equal(t, 1, n, "hue %v", h)
	}
}

// The family measured on the undertone is the one the library names, for every
// pigment: a check on the model as much as on the ranges.
func TestMeasuredFamilyAgreesWithTheLibrary(t *testing.T) {
	for _, p := range paint.Library() {
		assert.Equal(t, Family(p.Family), FamilyOf(p), p.ID)
	}
}

func TestLean(t *testing.T) {
	for _, c := range []struct {
		id     string
		role   Role
		toward string
	}{
		{"PB29", "", "violet"}, {"PB15:3", "", "green"}, {"PB28", "", "centred"},
		{"PY184", "", "green"}, {"PY65", "", "orange"}, {"PY74", "", "centred"},
		{"PR255", "", "orange"}, {"PR122", "", "violet"}, {"PR122", "magenta", "centred"},
		{"PV19", "magenta", "red"}, {"PB16", "cyan", "centred"}, {"PB29", "cyan", "blue"},
		{"PG7", "", "blue"}, {"PO73", "", "red"}, {"PY43", "yellow", "orange"},
	} {
		l, ok := LeanIn(painttest.Paint(c.id), c.role)
		require.True(t, ok, c.id)
		assert.Equal(t, c.toward, l.Toward, "%s in %q: %+v", c.id, c.role, l)
	}
	ultramarine, _ := LeanIn(painttest.Paint("PB29"), "")
	m := painttest.Paint("PB29").Alone()
	assert.InDelta(t, m.Undertone().Hue-247, ultramarine.Degrees, 1e-9, "signed degrees from the blue hinge")
	azo, _ := LeanIn(painttest.Paint("PY150"), "")
	assert.Equal(t, "orange", azo.Toward)
	assert.Equal(t, "green", azo.InWash, "its wash tells another story")
	assert.Empty(t, ultramarine.InWash)
	for _, id := range []string{"PW6", "PBk7"} {
		_, ok := LeanIn(painttest.Paint(id), "")
		assert.False(t, ok, "%s has no lean", id)
	}
}

func TestRolesAccept(t *testing.T) {
	for _, c := range []struct {
		role Role
		id   string
		want bool
	}{
		{"yellow", "PY184", true}, {"yellow", "PY43", true}, {"yellow", "PR101", true}, {"yellow", "PO20", false},
		{"red", "PR122", true}, {"red", "PV14", false}, {"magenta", "PR254", true},
		{"blue", "PB16", true}, {"cyan", "PB29", true}, {"blue", "PG7", false}, {"blue", "PBk7", false}, {"", "PB29", false},
	} {
		assert.Equal(t, c.want, c.role.Accepts(painttest.Paint(c.id)), "%s as %s", c.id, c.role)
	}
}

func TestDensitiesAreTakenWhereTheHighestIsEightTenths(t *testing.T) {
	for _, p := range paint.Library() {
		m := p.Alone()
		d := DensitiesOf(&m)
		if p.Family != "white" {
			assert.InDelta(t, 0.8, d.high(), 1e-6, p.ID)
		}
		print, ok := PrintOf(&m)
		assert.Equal(t, p.Family != "white" && p.Family != "black", ok, p.ID)
		for _, v := range []float64{print.HueError, print.Greyness} {
			assert.InDelta(t, 0.5, v, 0.5, p.ID)
		}
	}
	bare := Densities{0.8, 0.3, 0.1}
	assert.InDelta(t, 0.2/0.7, bare.HueError(), 1e-12)
	assert.InDelta(t, 0.125, bare.Greyness(), 1e-12)
	assert.Zero(t, Densities{}.HueError()+Densities{}.Greyness())
}

func TestADullPaintIsGreyerThanABrightOne(t *testing.T) {
	for _, pair := range [][2]string{{"PY43", "PY74"}, {"PBr7-burnt-sienna", "PO73"}, {"PG17", "PG36"}, {"PB60", "PB15:3"}} {
		dull, bright := painttest.Paint(pair[0]).Alone(), painttest.Paint(pair[1]).Alone()
		d, _ := PrintOf(&dull)
		b, _ := PrintOf(&bright)
		assert.Greater(t, d.Greyness, b.Greyness, pair)
	}
}

func TestRuleOfThumb(t *testing.T) {
	for _, c := range []struct {
		a, b   string
		sa, sb Side
		want   string
	}{
		{"PR122", "PB29", Toward, Toward, "bright"},
		{"PR122", "PB15:3", Toward, Away, "moderate"},
		{"PR255", "PB15:3", Away, Away, "dull"},
		{"PY65", "PB29", Away, Away, "dull"},
		{"PY184", "PB15:3", Toward, Toward, "bright"},
		{"PY74", "PB15:3", Centred, Toward, "bright"},
		{"PY74", "PB28", Centred, Centred, "moderate"},
		{"PR209", "PB15:3", Centred, Away, "dull"},
		{"PY65", "PR255", Toward, Toward, "bright"},
	} {
		got, ok := RuleOfThumb(painttest.Paint(c.a), painttest.Paint(c.b), "", "")
		require.True(t, ok, "%s %s", c.a, c.b)
		assert.Equal(t, Rule{c.sa, c.sb, c.want}, got, "%s %s", c.a, c.b)
		back, ok := RuleOfThumb(painttest.Paint(c.b), painttest.Paint(c.a), "", "")
		require.True(t, ok)
		assert.Equal(t, Rule{c.sb, c.sa, c.want}, back, "%s %s", c.b, c.a)
	}
	for _, pair := range [][2]string{{"PR254", "PR122"}, {"PB29", "PB16"}, {"PY43", "PB29"}, {"PG7", "PR254"}, {"PW6", "PB29"}, {"PBk7", "PY74"}} {
		_, ok := RuleOfThumb(painttest.Paint(pair[0]), painttest.Paint(pair[1]), "", "")
		assert.False(t, ok, "no rule for %v", pair)
	}
	cmy, ok := RuleOfThumb(painttest.Paint("PR122"), painttest.Paint("PB29"), "magenta", "cyan")
	require.True(t, ok)
	assert.Equal(t, Rule{Centred, Toward, "bright"}, cmy, "roles move the hinges")
}

func TestBecause(t *testing.T) {
	for _, c := range []struct {
		name, a, b string
		share      float64
		says       []string
	}{
		{"as the rule says", "PR122", "PB29", 0.5, []string{"Clean, for both lean to violet", "swallows green light", "blue light gets past both"}},
		{"dull as the rule says", "PY65", "PB29", 0.3, []string{"Muddy, for both lean away", "to orange", "to violet", "even of the"}},
		{"white", "PB29", "PW6", 0.5, []string{"lets the ultramarine blue down"}},
		{"black", "PBk7", "PY74", 0.5, []string{"darkens the arylide yellow medium"}},
		{"greys", "PBk7", "PW6", 0.5, []string{"nothing but greys"}},
		{"no rule for a green and a red", "PG7", "PR254", 0.5, []string{"The phthalo green blue shade swallows"}},
	} {
		a, b := painttest.Paint(c.a), painttest.Paint(c.b)
		ma, mb := a.Alone(), b.Alone()
		m := paint.Between(&ma, &mb, c.share)
		got := Because(a, b, "", "", &m)
		for _, words := range c.says {
			assert.Contains(t, got, words, c.name)
		}
	}
}

// The light that gets past best is found, and of the two paints the one that
// takes more of it is blamed, whichever is named first.
func TestTheReasonBlamesThePaintThatTakesMore(t *testing.T) {
	for _, c := range []struct{ a, b, says string }{
		{"PY65", "PB29", "of the red light, which gets past best, 54 % is lost, mostly to the ultramarine blue."},
		{"PG7", "PR254", "of the green light, which gets past best, 62 % is lost, mostly to the pyrrole red."},
		{"PY43", "PV23", "of the red light, which gets past best, 47 % is lost, mostly to the dioxazine violet."},
		{"PR101", "PB15:3", "of the blue light, which gets past best, 35 % is lost, mostly to the transparent red oxide."},
	} {
		for _, ids := range [][2]string{{c.a, c.b}, {c.b, c.a}} {
			a, b := painttest.Paint(ids[0]), painttest.Paint(ids[1])
			ma, mb := a.Alone(), b.Alone()
			m := paint.Between(&ma, &mb, 0.5)
			assert.Contains(t, Because(a, b, "", "", &m), c.says, ids)
		}
	}
}

func TestAloneSpeaksOfThePaint(t *testing.T) {
	assert.Contains(t, Alone(painttest.Paint("PR122")), "quinacridone magenta swallows green light")
	assert.Contains(t, Alone(painttest.Paint("PBk11")), "Iron oxide black treats all light alike")
	assert.Contains(t, Alone(painttest.Paint("PG17")), "greys it")
}

func TestEveryPairHasASentence(t *testing.T) {
	lib := paint.Library()
	for i, a := range lib {
		for _, b := range lib[i:] {
			ma, mb := a.Alone(), b.Alone()
			m := paint.Between(&ma, &mb, 0.5)
			s := Because(a, b, "", "", &m)
			require.NotEmpty(t, s)
			require.NotContains(t, s, "%!", "%s %s", a.ID, b.ID)
			require.False(t, math.IsNaN(DensitiesOf(&m).high()))
		}
	}
}

func BenchmarkDensities(b *testing.B) {
	m := painttest.Paint("PB29").Alone()
	for b.Loop() {
		DensitiesOf(&m)
	}
}
