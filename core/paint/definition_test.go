package paint

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestATubeGoesByItsNumber(t *testing.T) {
	for _, n := range []int64{1, 42, 1 << 40} {
		back, is := TubeNumber(TubeID(n))
		assert.True(t, is)
		assert.Equal(t, n, back)
	}
	for _, id := range []string{"", "PB29", "tube-", "tube-x", "tube-1.5", "12"} {
		_, is := TubeNumber(id)
		assert.False(t, is, id)
	}
}
