package input_test

import (
	"errors"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"gyrophane/core/input"
)

func ExampleSentence() {
	fmt.Println(input.Sentence(errors.New("élan noir stands twice: name each paint once")))
	// Output: Élan noir stands twice: name each paint once.
}

func TestAnErrorKeepsItsCause(t *testing.T) {
	cause := errors.New("too dark")
	for _, err := range []error{input.Errorf("line 3: %w", cause), input.Wrap(cause), input.Sentence(cause)} {
		var typed input.Error
		assert.ErrorAs(t, err, &typed)
		assert.ErrorIs(t, err, cause)
	}
	assert.EqualError(t, input.Errorf("line %d: %w", 3, cause), "line 3: too dark")
	assert.EqualError(t, input.Sentence(errors.New("Done.")), "Done.")
}

func TestAQuoteIsClippedByCharacters(t *testing.T) {
	assert.Equal(t, "ü", input.Clip("ü"))
	assert.Equal(t, strings.Repeat("ü", 40)+"...", input.Clip(strings.Repeat("ü", 41)))
}
