package bias

import (
	"math"
	"regexp"
	"strings"
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
		{"PR255", "", "orange"}, {"PR122", "", "violet"}, {"PR122", "magenta", "violet"},
		{"PR264", "", "violet"}, {"PR177", "", "violet"}, {"PR209", "", "violet"}, {"PR83", "", "violet"},
		{"PR188", "", "orange"}, {"PR108", "", "orange"}, {"PY150", "", "centred"}, {"PY110", "", "orange"}, {"PY153", "", "orange"},
		{"PV19", "magenta", "centred"}, {"PB16", "cyan", "centred"}, {"PB29", "cyan", "blue"},
		{"PG7", "", "blue"}, {"PO73", "", "red"}, {"PY43", "yellow", "orange"},
	} {
		l, ok := LeanIn(painttest.Paint(c.id), c.role)
		require.True(t, ok, c.id)
		assert.Equal(t, c.toward, l.Toward, "%s in %q: %+v", c.id, c.role, l)
	}
	ultramarine, _ := LeanIn(painttest.Paint("PB29"), "")
	m := painttest.Paint("PB29").Alone()
	tint := m.LetDown(0.1)
	mass := tint.Masstone()
	assert.InDelta(t, mass.OKLab(colour.D65).OKLCh().H-243, ultramarine.Degrees, 1e-9, "signed degrees of the 1:9 tint from the blue hinge")
	rubine, _ := LeanIn(painttest.Paint("PR264"), "")
	assert.Equal(t, "orange", rubine.InMass, "straight from the tube it tells another story")
	assert.Equal(t, "orange", rubine.InWash)
	assert.Empty(t, ultramarine.InMass+ultramarine.InWash)
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
		switch {
		case p.Family == "white":
		case p.ID == "PB33": // even opaque it stays paler
			assert.InDelta(t, 0.7, d.high(), 0.05, p.ID)
		default:
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
		{"PR209", "PB15:3", Toward, Away, "moderate"},
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
	assert.Equal(t, Rule{Toward, Toward, "bright"}, cmy, "roles move the hinges")
}

func TestBecause(t *testing.T) {
	for _, c := range []struct {
		name, a, b string
		share      float64
		says       []string
	}{
		{"as the rule says", "PR122", "PB29", 0.5, []string{"Clean: both lean to violet. Both take green and orange light, the quinacridone magenta also blue-green, the ultramarine blue also red; blue light gets past both."}},
		{"dull as the rule says", "PY65", "PB29", 0.3, []string{"Muddy: they lean away from each other, the arylide yellow deep to orange and the ultramarine blue to violet."}},
		{"one light, one sentence", "PY74", "PY35", 0.5, []string{"Both take blue light, the cadmium yellow also blue-green; green and red light get past both."}},
		{"the paint to blame", "PY65", "PG7", 0.2, []string{"The arylide yellow deep takes blue-green light, which a green needs: expect a quieter"}},
		{"what a mud is called", "PY74", "PV23", 0.14, []string{"The dioxazine violet takes", "light, which", "expect a brown."}},
		{"complements", "PO20", "PB35", 0.8, []string{"what they leave of the light is even: expect a grey."}},
		{"quiet paints", "PBr7-raw-umber", "PBr7-burnt-umber", 0.5, []string{"As quiet as its paints: both are quiet by themselves."}},
		{"one quiet paint", "PY3", "PG18", 0.9, []string{"As quiet as its paints: the viridian is quiet by itself."}},
		{"white", "PB29", "PW6", 0.5, []string{"lets the ultramarine blue down"}},
		{"black", "PBk9", "PY37", 0.7, []string{"Bone black takes light of every colour: it turns the cadmium yellow deep to an olive."}},
		{"greys", "PBk7", "PW6", 0.5, []string{"nothing but greys"}},
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

// What gets past both is what the mixture shows: no blue past an orange or a yellow, no red past a green.
func TestWhatGetsPastIsWhatIsSeen(t *testing.T) {
	past := regexp.MustCompile(`([a-z, -]+) light gets? past both`)
	said := 0
	lib := paint.Library()
	for i, a := range lib {
		for _, b := range lib[i+1:] {
			found := past.FindStringSubmatch(becauseHalfWay(a, b))
			if found == nil {
				continue
			}
			said++
			ma, mb := a.Alone(), b.Alone()
			m := paint.Between(&ma, &mb, ma.Absorption()/(ma.Absorption()+mb.Absorption()))
			u := m.Undertone()
			for hue, never := range map[string]string{"orange": "blue", "yellow-orange": "blue", "yellow": "blue", "red": "green", "green": "red"} {
				if u.HueWord() == hue {
					assert.NotContains(t, strings.ReplaceAll(found[1], "blue-green", "teal"), never, "%s and %s make %s: %s", a.ID, b.ID, hue, found[0])
				}
			}
		}
	}
	assert.Greater(t, said, 100)
	for _, id := range []string{"PY3", "PY184", "PY74", "PY65", "PY35"} {
		assert.Contains(t, Alone(painttest.Paint(id)), "takes blue", id)
	}
}

// Of the two paints the one that takes more of the light is blamed, whichever is
// named first.
func TestTheReasonBlamesThePaintThatTakesMore(t *testing.T) {
	for _, c := range []struct{ a, b, says string }{
		{"PY65", "PB28", "The arylide yellow deep takes blue-green light, which a green needs"},
		{"PY43", "PB15:3", "The yellow ochre takes blue-green light, which a green needs"},
		{"PR254", "PB15:3", "light, which a "},
		{"PR112", "PG23", "light, which a red needs"},
	} {
		for _, ids := range [][2]string{{c.a, c.b}, {c.b, c.a}} {
			got := becauseHalfWay(painttest.Paint(ids[0]), painttest.Paint(ids[1]))
			assert.Contains(t, got, c.says, ids)
		}
	}
}

// becauseHalfWay is the reason of a mixture in which both absorb alike.
func becauseHalfWay(a, b *paint.Paint) string {
	ma, mb := a.Alone(), b.Alone()
	m := paint.Between(&ma, &mb, ma.Absorption()/(ma.Absorption()+mb.Absorption()))
	return Because(a, b, "", "", &m)
}

// No sentence says of one paint what is true of the other, or quotes a share.
func TestNoReasonSaysOneThingTwice(t *testing.T) {
	clause := regexp.MustCompile(`(leans to|is|takes|also) ([a-z-]+(?:(?:, [a-z-]+)* and [a-z-]+)?)`)
	lib := paint.Library()
	for i, a := range lib {
		for _, b := range lib[i+1:] {
			s := becauseHalfWay(a, b)
			assert.NotContains(t, s, "%", "%s %s", a.ID, b.ID)
			for _, sentence := range strings.Split(s, ". ") {
				said := map[string]bool{}
				for _, c := range clause.FindAllString(sentence, -1) {
					assert.False(t, said[c], "%s %s: %q in %q", a.ID, b.ID, c, s)
					said[c] = true
				}
			}
		}
	}
}

func TestAloneSpeaksOfThePaint(t *testing.T) {
	assert.Contains(t, Alone(painttest.Paint("PR122")), "quinacridone magenta takes green and orange light")
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
