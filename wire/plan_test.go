package wire

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/wheel"
)

// aPlan is a plan in JSON, and its sheet.
func aPlan(t testing.TB) ([]byte, bench.Sheet) {
	t.Helper()
	system, err := wheel.NewSystem(wheel.Split, [3][]*paint.Paint{painttest.Paints("PY184", "PY65"), painttest.Paints("PR255", "PR122"), painttest.Paints("PB29", "PB15:3")})
	require.NoError(t, err)
	in := paint.Media()[1]
	set := bench.Usual(in)
	s := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{}, set)
	plan, err := bench.Sketch(&s, set)
	require.NoError(t, err)
	data, err := json.Marshal(View{Light: colour.D65, Medium: in}.Plan(plan, nil))
	require.NoError(t, err)
	return data, s
}

func TestAPlanIsReadAsItWasWritten(t *testing.T) {
	data, s := aPlan(t)
	got, in, err := ParsePlan(data, paint.Find)
	require.NoError(t, err)
	assert.Equal(t, "gouache", in.ID)
	assert.Equal(t, s.Inner, got.Inner)
	assert.Equal(t, s.Marks(), got.Marks())
	require.Len(t, got.Regions, len(s.Regions))
	for i := range s.Regions {
		assert.Equal(t, s.Regions[i].Shape, got.Regions[i].Shape)
		a, b := s.Regions[i].Appearance(in, false), got.Regions[i].Appearance(in, false)
		assert.Less(t, colour.Difference(a.Lab(), b.Lab()), 0.01, s.Regions[i].ID)
	}
}

func FuzzPlan(f *testing.F) {
	data, _ := aPlan(f)
	f.Add(data)
	f.Add([]byte(`{"medium":"gouache","width":1,"height":1,"regions":[{"id":"a","parts":[{"paint":"PB29","parts":1e308,"letDown":{"paint":"PW6","parts":0}}]}]}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		s, _, err := ParsePlan(data, paint.Find)
		if err != nil {
			assert.ErrorAs(t, err, new(input.Error))
			return
		}
		for i := range s.Regions {
			s.Regions[i].Within(0.15)
		}
	})
}
