package api

import (
	"encoding/json"
	"errors"
	"log/slog"
	"reflect"
	"testing"

	"github.com/danielgtaylor/huma/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
	"gyrophane/store/storetest"
	"gyrophane/studio"
	"gyrophane/wire"
)

// What is asked of another process, and what that answers, is on its way what it was.
func TestJobsCarryWhatIsAskedAndAnswered(t *testing.T) {
	for _, asked := range []any{&chooseInput{}, &replaceInput{}, &keepPhotoInput{}, &standinInput{}, &readPhotoInput{}, &straightInput{}, &pickFromPhotoInput{}, &beginRestoringInput{}} {
		storetest.Fill(asked)
		text, err := json.Marshal(asked)
		require.NoError(t, err)
		got := reflect.New(reflect.TypeOf(asked).Elem()).Interface()
		require.NoError(t, json.Unmarshal(text, got))
		assert.Equal(t, asked, got)
	}
	for _, answer := range []any{
		&struct{ Body wire.Chosen }{}, &struct{ Body []wire.Swapped }{}, &oneSittingPhoto{}, &struct{ Body wire.PhotoRead }{},
		&Export{}, &struct{ Body map[string]wire.Measured }{}, &studio.Restored{},
	} {
		storetest.Fill(answer)
		text, err := answered(answer)
		require.NoError(t, err)
		got := reflect.New(reflect.TypeOf(answer).Elem()).Interface()
		require.NoError(t, outcomeOf(text, got))
		assert.Equal(t, answer, got)
	}
}

func TestJobsCarryWhyTheyWereRefused(t *testing.T) {
	s := &Server{Options: Options{Log: slog.New(slog.DiscardHandler)}}
	for _, refused := range []error{huma.Error422UnprocessableEntity("Choose a photo of a sheet."), store.ErrNotFound, errors.New("a fault of ours")} {
		text, err := s.refused(refused)
		require.NoError(t, err)
		assert.Equal(t, s.refusal(refused), outcomeOf(text, nil))
	}
}
