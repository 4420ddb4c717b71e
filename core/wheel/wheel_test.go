package wheel

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
)

func triad(t testing.TB, yellow, red, blue string) System {
	t.Helper()
	s, err := Triad(painttest.Paint(yellow), painttest.Paint(red), painttest.Paint(blue))
	require.NoError(t, err)
	return s
}

func TestSlotsStandWherePaintersDrawThem(t *testing.T) {
	w := Build(triad(t, "PY184", "PR254", "PB60"), Options{})
	want := []string{"yellow", "yellow-orange", "orange", "red-orange", "red", "red-violet",
		"violet", "blue-violet", "blue", "blue-green", "green", "yellow-green"}
	for i, s := range w.Slots {
		assert.Equal(t, i, s.Index)
		assert.Equal(t, want[i], s.Name)
		assert.Equal(t, [...]Kind{Primary, Tertiary, Secondary, Tertiary}[i%4], s.Kind)
		assert.Equal(t, (i+6)%12, s.Complement())
		assert.NotEmpty(t, w.Because(i))
		var ids []string
		for _, part := range s.Parts {
			ids = append(ids, part.Paint.ID)
		}
		all := []string{"PY184", "PR254", "PB60"}
		if s.Kind == Primary {
			assert.Equal(t, []string{all[i/4]}, ids)
		} else {
			assert.Equal(t, []string{all[i/4], all[(i/4+1)%3]}, ids, "section runs from its primary to the next")
		}
	}
	assert.Equal(t, "violet", w.Slots[w.Slots[0].Complement()].Name)
}

func TestTheRunOfASectionGoesOneWay(t *testing.T) {
	for _, spacing := range []path.Spacing{path.ByHue, path.ByContrast, path.EqualParts} {
		w := Build(triad(t, "PY184", "PR122", "PB15:3"), Options{Spacing: spacing})
		for i := 1; i < 12; i++ {
			if i%4 > 1 {
				assert.Greater(t, w.Slots[i].Share, w.Slots[i-1].Share, "slot %d by %v", i, spacing)
			}
		}
	}
}

// A step jumps past 1.6 times the median step, and never below 0.06; among these
// wheels are steps that lie close to either.
func TestJumps(t *testing.T) {
	var past, short, small int
	for _, ids := range [][3]string{{"PY184", "PR122", "PB15:3"}, {"PY65", "PR255", "PB29"}, {"PY43", "PR101", "PB29"}, {"PY184", "PR254", "PB60"}, {"PY43", "PBr7-raw-umber", "PG23"}} {
		for _, spacing := range []path.Spacing{path.ByHue, path.ByContrast, path.EqualParts} {
			w := Build(triad(t, ids[0], ids[1], ids[2]), Options{Spacing: spacing})
			for i, s := range w.Slots {
				assert.InDelta(t, s.Brushed.Distance(w.Slots[(i+1)%12].Brushed), s.Jump, 1e-12)
				assert.Equal(t, s.Jump > 1.6*w.Median && s.Jump > 0.06, s.Jumps, "%v by %v, slot %d", ids, spacing, i)
				switch times := s.Jump / w.Median; {
				case s.Jumps && times < 1.9:
					past++
				case !s.Jumps && times > 1.3 && times < 1.6:
					short++
				case times > 1.6 && s.Jump > 0.04:
					small++
				}
			}
		}
	}
	assert.Positive(t, past, "just past it")
	assert.Positive(t, short, "just short of it")
	assert.Positive(t, small, "more than 1.6 times as large, and yet small")
}

func TestBrightAndDullTriadsAreToldApart(t *testing.T) {
	bright := Build(triad(t, "PY184", "PR122", "PB15:3"), Options{})
	dull := Build(triad(t, "PY65", "PR255", "PB29"), Options{})
	assert.Equal(t, paint.Clean, bright.Slots[10].Under.Verdict, "green of a lemon and a green-leaning blue")
	assert.Equal(t, paint.Muddy, dull.Slots[10].Under.Verdict, "green of an orange-leaning yellow and a violet-leaning blue")
	assert.Greater(t, bright.Lowest(2), dull.Lowest(2))
	assert.Contains(t, dull.Because(10), "they lean away")
}

func TestTriadRefusesWhatCannotBeAPrimary(t *testing.T) {
	y, _ := paint.Find("PY74")
	b, _ := paint.Find("PB29")
	w, _ := paint.Find("PW6")
	_, err := Triad(y, w, b)
	assert.ErrorContains(t, err, "PW6 (titanium white) cannot be the red")
	_, err = Triad(y, b, b)
	assert.ErrorContains(t, err, "both the red and the blue")
}

func TestAnUnlikelyTriadStillExplainsItself(t *testing.T) {
	w := Build(triad(t, "PY43", "PBr7-raw-umber", "PG23"), Options{})
	for i, s := range w.Slots {
		assert.NotEmpty(t, w.Because(i))
		assert.NotEmpty(t, s.Parts)
		assert.NotEqual(t, paint.Neutral, s.Under.Verdict)
	}
}

func BenchmarkTriadWheel(b *testing.B) {
	s := triad(b, "PY184", "PR254", "PB60")
	Build(s, Options{})
	b.ReportAllocs()
	for b.Loop() {
		w := Build(s, Options{})
		for i := range w.Slots {
			w.Because(i)
		}
	}
}
