package files

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/input"
	"gyrophane/core/paint"
)

func TestReadingsAreReadRowByRow(t *testing.T) {
	in := paint.Media()[1]
	rows, err := ReadReadings([]byte("parts,L,a,b,state\nPY184=8 PB29=1,60,-20,40,dry\nPY184=8 PB29=1,58,-20,40,wet\nPX9=1,50,0,0,dry\nPB29=1,150,0,0,dry\nPB29=1,fifty,0,0,dry\nPB29=1,50,0,0,damp\n,50,0,0,\nPB29=0,50,0,0,\n"), in, paint.Find)
	require.NoError(t, err)
	require.Len(t, rows, 8)
	assert.Len(t, rows[0].Sample.Parts, 2)
	assert.Equal(t, 60.0, rows[0].Sample.Lab.L)
	assert.True(t, rows[1].Wet)
	for i, says := range []string{"", "", "PX9", "no colour of a surface", "not a number", "wet or dry", "parts are like", "parts must be a number"} {
		if says == "" {
			assert.Empty(t, rows[i].Problem)
			continue
		}
		assert.Contains(t, rows[i].Problem, says)
	}
	decimal, err := ReadReadings([]byte("parts;L;a;b\nPB29=1;30,5;10;-40\n"), in, paint.Find)
	require.NoError(t, err)
	assert.Equal(t, 30.5, decimal[0].Sample.Lab.L)
	for file, says := range map[string]string{"": "empty", "parts,L,a\n": "no column \"b\"", "parts,L,a,b\n": "no readings below"} {
		_, err := ReadReadings([]byte(file), in, paint.Find)
		assert.ErrorContains(t, err, says)
		assert.ErrorAs(t, err, new(input.Error))
	}
}

func FuzzReadings(f *testing.F) {
	f.Add([]byte("parts,L,a,b,state\nPY184=8 PB29=1,60,-20,40,dry\n"))
	f.Add([]byte("parts;l;A;b\nPB29=1e300;30,5;10;-40\n"))
	in := paint.Media()[1]
	f.Fuzz(func(t *testing.T, data []byte) {
		rows, err := ReadReadings(data, in, paint.Find)
		if err != nil {
			assert.ErrorAs(t, err, new(input.Error))
			return
		}
		for _, r := range rows {
			if r.Problem == "" {
				assert.NotEmpty(t, r.Sample.Parts)
			}
		}
	})
}
