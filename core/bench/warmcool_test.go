package bench_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/bias"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

func systemOf(t *testing.T, kind wheel.SystemKind, roles ...string) wheel.System {
	t.Helper()
	var of [3][]*paint.Paint
	for k, codes := range roles {
		for _, code := range strings.Fields(codes) {
			p, err := paint.Find(code)
			require.NoError(t, err)
			of[k] = append(of[k], p)
		}
	}
	s, err := wheel.NewSystem(kind, of)
	require.NoError(t, err)
	return s
}

func TestWarmAndCoolAreMixedFourWays(t *testing.T) {
	six := systemOf(t, wheel.Split, "PY184 PY65", "PR255 PR122", "PB29 PB15:3")
	s, err := bench.WarmCool(six, bias.VioletIsWarm, path.ByHue)
	require.NoError(t, err)
	require.Len(t, s.Regions, 6+12)
	mixed := map[string]string{}
	parents := 0
	for _, r := range s.Regions {
		if len(r.Recipe) == 1 {
			parents++
			assert.Equal(t, paint.Neutral, r.Verdict, "%s is not mixed", r.ID)
			continue
		}
		assert.NotEqual(t, paint.Neutral, r.Verdict, r.ID)
		ids := []string{r.Recipe.Plain()[0].Paint.ID, r.Recipe.Plain()[1].Paint.ID}
		slices.Sort(ids)
		mixed[r.ID] = strings.Join(ids, " ")
	}
	assert.Equal(t, 6, parents, "each paint stands beside it once")
	assert.Equal(t, map[string]string{
		"warm/orange": "PR255 PY65", "warm/violet": "PB29 PR255", "warm/green": "PB29 PY65",
		"cool/orange": "PR122 PY184", "cool/violet": "PB15:3 PR122", "cool/green": "PB15:3 PY184",
		"warm with cool/orange": "PR122 PY65", "warm with cool/violet": "PB15:3 PR255", "warm with cool/green": "PB29 PY184",
		"cool with warm/orange": "PR255 PY184", "cool with warm/violet": "PB29 PR122", "cool with warm/green": "PB15:3 PY65",
	}, mixed)

	other, err := bench.WarmCool(six, bias.GreenIsWarm, path.ByHue)
	require.NoError(t, err)
	at := slices.IndexFunc(other.Regions, func(r bench.Region) bool { return r.ID == "warm/violet" })
	assert.Contains(t, other.Regions[at].Parents, "PB15:3", "of the other school that blue is the warm one")
}

func TestAnotherSetHasARowForEachPairing(t *testing.T) {
	for name, c := range map[string]struct {
		system wheel.System
		rows   int
	}{
		"a triad":          {systemOf(t, wheel.RYB, "PY65", "PR254", "PB29"), 3},
		"two of a kind":    {systemOf(t, wheel.OwnSystem, "PY65", "PR254 PR122", ""), 3},
		"no cool red":      {systemOf(t, wheel.Split, "PY184 PY65", "PR255 PO20", "PB29 PB15:3"), 6},
		"only two primary": {systemOf(t, wheel.RYB, "PY65", "PR254", ""), 1},
	} {
		t.Run(name, func(t *testing.T) {
			s, err := bench.WarmCool(c.system, bias.VioletIsWarm, path.ByHue)
			require.NoError(t, err)
			assert.Len(t, s.Regions, 5*c.rows)
		})
	}
	many := systemOf(t, wheel.Double, "PY184 PY65 PY74 PY150", "PR254 PR122 PR255 PV19", "PB29 PB15:3 PB60")
	_, err := bench.WarmCool(many, bias.VioletIsWarm, path.ByHue)
	assert.ErrorContains(t, err, "too many for a sheet of rows")
}

// Places lie apart, within the width, and in rows that do not cross.
func TestBlocksLieApartAndWithinTheirWidth(t *testing.T) {
	six := systemOf(t, wheel.Split, "PY184 PY65", "PR255 PR122", "PB29 PB15:3")
	for _, system := range []wheel.System{six, systemOf(t, wheel.RYB, "PY65", "PR254", "PB29")} {
		s, err := bench.WarmCool(system, bias.VioletIsWarm, path.ByHue)
		require.NoError(t, err)
		for _, width := range []float64{120, 182, 187.9, 269} {
			s.Lay(width)
			assert.LessOrEqual(t, s.W, width)
			ids := map[string]bool{}
			for i, a := range s.Regions {
				assert.False(t, ids[a.ID], "%s stands twice", a.ID)
				ids[a.ID] = true
				assert.True(t, a.X >= 0 && a.X+a.W <= s.W+1e-9 && a.Y+a.H <= s.H+1e-9, "%s", a.ID)
				for _, b := range s.Regions[:i] {
					across := a.X < b.X+b.W+2 && b.X < a.X+a.W+2
					down := a.Y < b.Y+b.H+bench.Beneath && b.Y < a.Y+a.H+bench.Beneath
					assert.False(t, across && down, "%s and %s at %.0f mm", a.ID, b.ID, width)
				}
			}
		}
	}
}
