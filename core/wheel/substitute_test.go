package wheel

import (
	"gyrophane/core/path"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
)

func candidates(ids ...string) (out []Candidate) {
	for _, p := range paintsOf(ids)[0] {
		out = append(out, Candidate{Paint: p})
	}
	return out
}

func idsOf(list []Candidate) (out []string) {
	for _, c := range list {
		out = append(out, c.Paint.ID)
	}
	return out
}

func TestSubstitutesAreRankedAsAPainterWould(t *testing.T) {
	dear := 60.0
	for name, c := range map[string]struct {
		kind   SystemKind
		roles  [3][]*paint.Paint
		role   int
		place  int
		from   []Candidate
		change func([]Candidate)
		want   []string
	}{
		"a blue that leans as wanted before one that leans the other way": {
			kind: Split, role: 2, place: 0, from: candidates("PB15:3", "PB29"), want: []string{"PB29", "PB15:3"},
		},
		"the other place wants the other one": {
			kind: Split, role: 2, place: 1, from: candidates("PB29", "PB15:3"), want: []string{"PB15:3", "PB29"},
		},
		"a triad wants what is centred": {
			kind: RYB, role: 0, place: 0, from: candidates("PY65", "PY74"), want: []string{"PY74", "PY65"},
		},
		"only what belongs in the role": {
			kind: RYB, role: 0, place: 0, from: candidates("PB29", "PW6", "PY74", "PR254"), want: []string{"PY74"},
		},
		"not what stands in the role already": {
			kind: Double, roles: paintsOf([]string{"PY74"}), role: 0, place: 1, from: candidates("PY74", "PY65"), want: []string{"PY65"},
		},
		"a bright paint before a dull one": {
			kind: OwnSystem, role: 0, place: 0, from: candidates("PY43", "PY74"), want: []string{"PY74", "PY43"},
		},
		"the box before the library, however it leans": {
			kind: Split, role: 2, place: 0, from: candidates("PB29", "PB15:3"),
			change: func(c []Candidate) { c[1].InBox = true }, want: []string{"PB15:3", "PB29"},
		},
		"of two alike the cheaper": {
			kind: RYB, role: 0, place: 0, from: candidates("PY74", "PY74"),
			change: func(c []Candidate) {
				twin, _ := c[0].Paint.Tube("tube-1", 1)
				c[0] = Candidate{Paint: twin, Price: &dear}
			},
			want: []string{"PY74", "tube-1"},
		},
	} {
		t.Run(name, func(t *testing.T) {
			if c.change != nil {
				c.change(c.from)
			}
			assert.Equal(t, c.want, idsOf(c.kind.Substitutes(c.roles, c.role, c.place, c.from)))
		})
	}
}

// Price counts against fitness: a point for every ten, where a point is a degree
// of lean, thirty are all the brightness there is, and to lean the wrong way is
// twenty more.
func TestAPriceOutweighsFitnessAtTenAPoint(t *testing.T) {
	worse := func(p *paint.Paint, want string) float64 {
		lean, ok := bias.LeanIn(p, "blue")
		require.True(t, ok)
		off := math.Abs(lean.Degrees)
		if lean.Toward == want {
			off = math.Abs(off - 14)
		} else {
			off += 20
		}
		return 30*(1-p.Undertone().Retention) + off
	}
	for _, c := range []struct{ better, worse string }{{"PB29", "PB15:3"}, {"PB29", "PB28"}} {
		of := candidates(c.better, c.worse)
		apart := worse(of[1].Paint, "violet") - worse(of[0].Paint, "violet")
		require.Greater(t, apart, 5.0)
		for price, want := range map[float64][]string{10*apart - 1: {c.better, c.worse}, 10*apart + 1: {c.worse, c.better}} {
			of[0].Price = &price
			assert.Equal(t, want, idsOf(Split.Substitutes([3][]*paint.Paint{}, 2, 0, of)), "at %.0f", price)
		}
	}
}

func TestATubeOfThePaintThatIsThereIsNoSubstitute(t *testing.T) {
	roles := paintsOf([]string{"PY74"})
	tube, err := roles[0][0].Tube("tube-1", 1)
	require.NoError(t, err)
	weak, err := roles[0][0].Tube("tube-2", 0.5)
	require.NoError(t, err)
	got := RYB.Substitutes(roles, 0, 0, []Candidate{{Paint: tube, InBox: true}, {Paint: weak, InBox: true}})
	assert.Equal(t, []string{"tube-2"}, idsOf(got), "a weaker grade of it is another paint")
}

func TestEveryKindIsFilledFromTheLibrary(t *testing.T) {
	var library []Candidate
	for _, p := range paint.Library() {
		library = append(library, Candidate{Paint: p})
	}
	for _, kind := range Kinds {
		roles := kind.Fill(library)
		usual, _ := kind.Places()
		for k, paints := range roles {
			require.Len(t, paints, usual, kind)
			for i, p := range paints {
				assert.Empty(t, kind.Fits(p, k, i), "%s, %s", kind, p.ID)
			}
		}
		_, err := NewSystem(kind, roles)
		assert.NoError(t, err, kind)
	}
	short := Double.Fill(candidates("PY74", "PR254", "PB29", "PB60"))
	assert.Len(t, short[0], 1, "a role stays short where the box has no more")
	assert.Len(t, short[2], 2)
}

func TestWhatRidesIsOfferedThoughItIsNoLongerInTheBox(t *testing.T) {
	away, err := paintsOf([]string{"PW4"})[0][0].Tube("tube-9", 1)
	require.NoError(t, err)
	find := func(id string) (*paint.Paint, error) {
		if id == away.ID {
			return away, nil
		}
		return paint.Find(id)
	}
	of := Selection{Kind: RYB, Riders: RiderIDs{White: away.ID, Black: "PBk7"}}
	places, err := of.Places(find, nil)
	require.NoError(t, err)
	whites := places.Riders[WhiteRider]
	assert.Equal(t, RiderOffer{away.ID, away.ShortName() + ", not in the box"}, whites[len(whites)-1])
	for _, o := range places.Riders[BlackRider] {
		assert.NotContains(t, o.Name, "not in the box", "the library's is offered already")
	}
}

func TestRidersAreWhatTheyAreCalled(t *testing.T) {
	find := func(id string) *paint.Paint { return paintsOf([]string{id})[0][0] }
	tube, err := find("blue-grey").Tube("tube-1", 1)
	require.NoError(t, err)
	s := triad(t, "PY74", "PR254", "PB29")
	for _, c := range []struct {
		rider Rider
		paint *paint.Paint
		fits  bool
	}{
		{WhiteRider, find("PW4"), true}, {WhiteRider, find("PBk9"), false},
		{BlackRider, find("PBk7"), true}, {BlackRider, tube, false},
		{BlueGreyRider, tube, true}, {BlueGreyRider, find("PBk7"), true}, {BlueGreyRider, find("PB29"), false},
		{ConvenienceRider, find("PO20"), true}, {ConvenienceRider, find("PW6"), false},
	} {
		rides, err := s.WithRider(c.rider, c.paint)
		if !c.fits {
			assert.ErrorContains(t, err, "cannot ride along as the "+c.rider.String())
			continue
		}
		require.NoError(t, err)
		assert.Same(t, c.paint, rides.Rider(c.rider))
	}
	assert.Equal(t, "PW6", s.Rider(WhiteRider).ID)
	assert.Equal(t, "PBk9", s.Rider(BlackRider).ID)
	assert.Equal(t, "blue-grey", s.Rider(BlueGreyRider).ID)
	assert.Nil(t, s.Rider(ConvenienceRider))
}

func TestRidersMakeTheRings(t *testing.T) {
	find := func(id string) *paint.Paint { return paintsOf([]string{id})[0][0] }
	s := triad(t, "PY184", "PR254", "PB60")
	with := map[Rider]string{WhiteRider: "PW4", BlackRider: "PBk7", BlueGreyRider: "PBk7"}
	var err error
	for r, id := range with {
		s, err = s.WithRider(r, find(id))
		require.NoError(t, err)
	}
	w := Build(s, Options{})
	ways := map[Additive]Rider{ByWhite: WhiteRider, ByBlack: BlackRider, ByBlueGrey: BlueGreyRider}
	for by, rider := range ways {
		rungs := w.Shades(0, 1, by)
		if by == ByWhite {
			rungs = w.Tints(8, 1, by)
		}
		require.NotEmpty(t, rungs)
		assert.Equal(t, with[rider], rungs[0].Parts[1].Paint.ID, by)
	}
	high, low, ok := w.Triple(2, ByBlack)
	require.True(t, ok)
	assert.Equal(t, "PW4", high.Parts[1].Paint.ID)
	assert.Equal(t, "PBk7", low.Parts[1].Paint.ID)
	assert.Equal(t, "PW4", w.Values(8, 9, ByBlack)[0].Parts[1].Paint.ID)
	glassy := of(t, Double, []string{"PY150", "PY35"}, []string{"PR108", "PR83"}, []string{"PB60", "PB28"})
	glassy, err = glassy.WithRider(WhiteRider, find("PW4"))
	require.NoError(t, err)
	raised := Build(glassy, Options{Raise: true})
	require.NotEmpty(t, raised.Raised)
	for id, p := range raised.Raised {
		assert.Equal(t, "PW4", p.Of[1].Paint.ID, id)
	}
}

func TestEmptySlotsSayWhy(t *testing.T) {
	six := Build(triad(t, "PY184", "PR254", "PB60"), Options{Six: true})
	for i, s := range six.Slots {
		assert.Equal(t, s.Kind == Tertiary, s.Empty)
		if s.Empty {
			assert.Equal(t, "Six slots only: the tertiaries are left out.", six.Because(i))
			assert.Empty(t, six.Mixing(i, RunOn))
		}
	}
	short := Build(of(t, OwnSystem, []string{"PY74"}, nil, []string{"PB29"}), Options{Six: true})
	assert.Contains(t, short.Because(2), "A role is missing")
}

// What a substitute would make of a section is what the section is when it stands there.
func TestWhatStandsInsteadMakesWhatItSays(t *testing.T) {
	find := paint.Find
	for _, s := range []Selection{
		{Kind: RYB, Roles: [3][]string{{"PY65"}, {"PR254"}, {"PB29"}}},
		{Kind: Split, Roles: [3][]string{{"PY184", "PY65"}, {"PR255", "PR122"}, {"PB29", "PB15:3"}}},
	} {
		places, err := s.Places(find, nil)
		require.NoError(t, err)
		for role := range 3 {
			for place := range places.Roles[role].Places {
				all := places.Instead(role, place)
				require.NotEmpty(t, all)
				assert.Equal(t, places.Roles[role].Places[place].ID, all[0].ID, "what stands there comes first")
				for _, w := range all[0].Ways {
					assert.Equal(t, [2]string{places.Sections[w.Section].From.ID, places.Sections[w.Section].To.ID}, [2]string{w.A.ID, w.B.ID}, "it makes what is there")
				}
				put := all[1]
				other := Selection{Kind: s.Kind, Roles: [3][]string{slices.Clone(s.Roles[0]), slices.Clone(s.Roles[1]), slices.Clone(s.Roles[2])}}
				other.Roles[role][place] = put.ID
				then, err := other.Places(find, nil)
				require.NoError(t, err)
				for _, w := range put.Ways {
					if s.Kind != RYB { // another pair may be the brightest then
						continue
					}
					is := path.Couple{A: then.Sections[w.Section].From, B: then.Sections[w.Section].To}.Pair(path.ByHue)
					assert.InDelta(t, is.Middle.Under.Retention, w.Middle.Under.Retention, 1e-9, "%s in the %d", put.ID, role)
				}
			}
		}
		assert.Nil(t, places.Instead(3, 0))
		assert.Nil(t, places.Instead(0, 9))
	}
	lone, err := Selection{Kind: RYB, Roles: [3][]string{{"PY65"}, {}, {}}}.Places(find, nil)
	require.NoError(t, err)
	for _, i := range lone.Instead(0, 0) {
		assert.Empty(t, i.Ways, "nothing stands across")
	}
}
