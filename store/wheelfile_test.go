package store

import (
	"errors"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
)

func aWheelFile() WheelFile {
	curve := make([]float64, colour.Bands)
	for i := range curve {
		curve[i] = 0.5
	}
	return WheelFile{
		Content: WheelContent{
			Name: "Rock <pool>", Kind: "triad", LibraryVersion: paint.LibraryVersion(),
			Snapshot: Snapshot{
				System: wheel.Selection{Kind: "triad", Roles: [3][]string{{"tube:3"}, {"PR254"}, {"tube:4"}}, Chosen: [3][]string{{}, {}, {}}, Note: "north wall"},
				Frozen: map[string]FrozenTube{"tube:3": {paint.Definition{Library: "PY65", Version: "2026.3"}, 1.4}, "tube:4": {paint.Definition{Name: "limpet", K: curve, S: curve}, 1}},
			},
			Settings: Settings{Medium: "gouache", Light: "D65", Judged: "dry"},
		},
		Tubes: map[string]CarriedTube{"tube:3": {Nickname: "sand", Grade: "artist", Learned: &Learned{1.4, 1.2, 1.6}}, "tube:4": {Grade: "student"}},
	}
}

func TestAWheelsFileReadsBackAsItWasWritten(t *testing.T) {
	want := aWheelFile()
	data, err := want.Write()
	require.NoError(t, err)
	got, err := ReadWheelFile(data)
	require.NoError(t, err)
	assert.Equal(t, want, got)
	_, err = ReadWheelFile(make([]byte, MostWheelBytes+1))
	assert.ErrorContains(t, err, "at most")
}

// Whatever comes in is read, or refused in a sentence; what is read can be written and read again.
func FuzzReadWheelFile(f *testing.F) {
	data, err := aWheelFile().Write()
	require.NoError(f, err)
	f.Add(data)
	f.Add([]byte(`{"format":"gyrophane-wheel","version":1}`))
	f.Add([]byte(`{"format":"gyrophane-wheel","version":1,"paints":{"frozen":{"tube:1":{"definition":{"k":[1]}}}}}`))
	f.Add([]byte(`[]`))
	f.Fuzz(func(t *testing.T, data []byte) {
		got, err := ReadWheelFile(data)
		if err != nil {
			require.True(t, errors.As(err, new(input.Error)), "%v", err)
			return
		}
		again, err := got.Write()
		require.NoError(t, err)
		if len(again) <= MostWheelBytes {
			_, err = ReadWheelFile(again)
			require.NoError(t, err, "%s", again)
		}
	})
}
