package certainty

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
)

func systemOf(t testing.TB, kind wheel.SystemKind, roles [3][]string, find func(string) (*paint.Paint, error)) wheel.System {
	t.Helper()
	s, err := wheel.Selection{Kind: kind, Roles: roles}.System(find)
	require.NoError(t, err)
	return s
}

var compared = []struct {
	kind  wheel.SystemKind
	roles [3][]string
}{
	{wheel.RYB, [3][]string{{"PY65"}, {"PR254"}, {"PB29"}}},
	{wheel.CMY, [3][]string{{"PY74"}, {"PR122"}, {"PB15:3"}}},
	{wheel.Split, [3][]string{{"PY184", "PY65"}, {"PR255", "PR122"}, {"PB29", "PB15:3"}}},
	{wheel.RYB, [3][]string{{"PY35"}, {"PR108"}, {"PB28"}}},
	{wheel.RYB, [3][]string{{"PY74"}, {"PR170"}, {"PB29"}}},
}

// Tubes drawn from what is not known of them: deviations of the mean brightness are as large as is said, and what is called sure
// of two systems comes so.
func TestCallsBetweenSystemsHold(t *testing.T) {
	draws := painttest.InFull(60, 300)
	if testing.Short() {
		draws = 10
	}
	r := rand.New(rand.NewPCG(33, 12))
	var systems []wheel.System
	var reaches []reach.Reach
	for _, c := range compared {
		s := systemOf(t, c.kind, c.roles, paint.Find)
		systems, reaches = append(systems, s), append(reaches, reach.OfSystem(s))
	}
	said := OfSystems(systems, Usual)
	within, all, sure, right := 0, 0, 0, 0
	for range draws {
		tubes := map[string]*paint.Paint{}
		find := func(id string) (*paint.Paint, error) {
			if tubes[id] == nil {
				p := painttest.Paint(id)
				tubes[id] = tube(t, p, Usual(p), r)
			}
			return tubes[id], nil
		}
		var came []reach.Reach
		for i, c := range compared {
			came = append(came, reach.OfSystem(systemOf(t, c.kind, c.roles, find)))
			all++
			if math.Abs(came[i].Mean()-reaches[i].Mean()) <= within80*said.Mean(i) {
				within++
			}
		}
		for i := range compared {
			for k := range i {
				by := reaches[i].Mean() - reaches[k].Mean()
				if said.MeanBetween(i, k, by).Sure == Sure {
					sure++
					if (came[i].Mean()-came[k].Mean())*by > 0 {
						right++
					}
				}
				d := said.Difference(i, k, reaches[i], reaches[k])
				for n, runs := range [][]reach.HueRange{d.First, d.Second, d.FirstBrighter, d.SecondBrighter} {
					for _, run := range runs {
						call := said.OfRun(i, k, reaches[i], reaches[k], run)
						assert.Equal(t, n%2 == 0, call.By > 0)
						if call.Sure != Sure {
							continue
						}
						sure++
						if said.OfRun(i, k, came[i], came[k], run).By*call.By > 0 {
							right++
						}
					}
				}
			}
		}
	}
	t.Logf("mean brightness within in %d of %d, sure calls right in %d of %d", within, all, right, sure)
	assert.InDelta(t, 0.8, float64(within)/float64(all), 0.15)
	assert.GreaterOrEqual(t, float64(right), 0.93*float64(sure))
	assert.Greater(t, sure, 10*draws)
}

// What two systems share cancels, and what is no different is too close to call.
func TestWhatSystemsShareCancels(t *testing.T) {
	a := systemOf(t, wheel.RYB, [3][]string{{"PY74"}, {"PR254"}, {"PB29"}}, paint.Find)
	b := systemOf(t, wheel.RYB, [3][]string{{"PY74"}, {"PR254"}, {"PB28"}}, paint.Find)
	c := systemOf(t, wheel.RYB, [3][]string{{"PY65"}, {"PR108"}, {"PB28"}}, paint.Find)
	s := OfSystems([]wheel.System{a, b, c, a}, Usual)
	assert.Zero(t, s.MeanBetween(0, 3, 0).Deviation, "the same tubes")
	assert.Equal(t, EitherWay, s.MeanBetween(0, 3, 0).Sure)
	assert.True(t, s.Alike(0, 3, reach.OfSystem(a), reach.OfSystem(a)))
	assert.False(t, s.Alike(0, 2, reach.OfSystem(a), reach.OfSystem(c)))
	shared, apart := s.MeanBetween(0, 1, 0.1).Deviation, s.MeanBetween(0, 2, 0.1).Deviation
	assert.Less(t, shared, math.Hypot(s.Mean(0), s.Mean(1)))
	assert.Less(t, shared, apart)
	assert.GreaterOrEqual(t, s.Clean(0), leastClean)
	for _, d := range s.Reach(0) {
		assert.False(t, math.IsNaN(d))
	}
}

func TestWhatIsTooCloseToCallIsNotRanked(t *testing.T) {
	one := func(name, red string) reach.Named {
		return reach.Named{Name: name, System: systemOf(t, wheel.RYB, [3][]string{{"PY74"}, {red}, {"PB29"}}, paint.Find)}
	}
	in, err := paint.ParseMedium("gouache")
	require.NoError(t, err)
	of, err := reach.SideBySide([]reach.Named{one("this", "PR254"), one("that", "PR254")}, in)
	require.NoError(t, err)
	s := OfSystems([]wheel.System{of[0].System, of[1].System}, Usual)
	assert.Contains(t, s.Decide(of), "too close to call")
	told := Difference{Close: []reach.HueRange{{From: 10, To: 14}}}
	assert.Equal(t, "this and that: too close to call "+reach.Runs(told.Close)+".", told.Sentence("this", "that"))
	told.First = []reach.HueRange{{From: 30, To: 40}}
	assert.Contains(t, told.Sentence("this", "that"), "this is cleaner ")
	assert.Contains(t, told.Sentence("this", "that"), "; too close to call ")
	assert.Equal(t, reach.Decide(of[:1]), s.Decide(of[:1]))
}

func BenchmarkOfSystems(b *testing.B) {
	var systems []wheel.System
	for _, c := range compared[:4] {
		systems = append(systems, systemOf(b, c.kind, c.roles, paint.Find))
	}
	for b.Loop() {
		OfSystems(systems, Usual)
	}
}
