package api

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-json-experiment/json/jsontext"

	"gyrophane/core/text"
)

// Names of a body are taken as they are written: validation must see the same
// fields as the struct that is filled.
func init() { huma.ValidateStrictCasing = true }

// deepest is how many objects and arrays of a body may stand in each other.
const deepest = 32

// formats is JSON alone, and strict.
func formats() map[string]huma.Format {
	strict := huma.Format{Marshal: huma.DefaultJSONFormat.Marshal, Unmarshal: unmarshal}
	return map[string]huma.Format{"application/json": strict, "json": strict}
}

// unmarshal reads a body of JSON. Huma reads each twice: first to validate it,
// and it is then that the door looks at it.
func unmarshal(data []byte, into any) error {
	if _, validating := into.(*any); validating {
		if err := sound(data); err != nil {
			return err
		}
	}
	return json.Unmarshal(data, into)
}

// unsoundJSON begins what is said of a body that is no JSON at all.
const unsoundJSON = "the request is not sound JSON"

// sound refuses JSON that two readers might understand differently, and text
// that cannot be shown: names that stand twice in one object, bytes that are no
// UTF-8, unshowable characters, and what is nested too deep.
func sound(data []byte) error {
	d := jsontext.NewDecoder(bytes.NewReader(data))
	for {
		token, err := d.ReadToken()
		var syntax *jsontext.SyntacticError
		switch {
		case errors.Is(err, io.EOF):
			return nil
		case errors.Is(err, jsontext.ErrDuplicateName):
			errors.As(err, &syntax)
			return fmt.Errorf("%s stands twice: give each name once", at(syntax.JSONPointer))
		case errors.As(err, &syntax) && syntax.Err != nil:
			return fmt.Errorf(unsoundJSON+", at byte %d: %w", syntax.ByteOffset, syntax.Err)
		case err != nil:
			return fmt.Errorf(unsoundJSON+": %w", err)
		}
		if d.StackDepth() > deepest {
			return fmt.Errorf("the request is nested deeper than %d", deepest)
		}
		if token.Kind() == '"' {
			if r, place := text.Unshowable(token.String()); place > 0 {
				return fmt.Errorf("%s holds a character that cannot be shown (U+%04X): take it out", at(d.StackPointer()), r)
			}
		}
	}
}

// at names a place in a body by its last word.
func at(p jsontext.Pointer) string {
	if p == "" {
		return "the request"
	}
	if r, place := text.Unshowable(string(p)); place > 0 {
		return fmt.Sprintf("a name with U+%04X", r)
	}
	tokens := strings.Split(string(p), "/")
	return fmt.Sprintf("%.40s", tokens[len(tokens)-1])
}
