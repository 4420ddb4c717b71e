// Package input is for what somebody typed, sent or brought in a file: the
// error that says what is wrong with it, where, and what to do.
package input

import (
	"errors"
	"fmt"
	"strings"

	"gyrophane/core/text"
)

// Error says what is wrong with an input, in words for whoever gave it.
type Error struct {
	message string
	cause   error // nil where there is none
}

// Error is the message.
func (e Error) Error() string { return e.message }

// Unwrap is what the input was refused for.
func (e Error) Unwrap() error { return e.cause }

// Errorf is an Error with a formatted message; an error wrapped with %w is its
// cause.
func Errorf(format string, a ...any) error {
	err := fmt.Errorf(format, a...)
	return Error{err.Error(), errors.Unwrap(err)}
}

// Wrap is an Error with the message of another error, which is its cause.
func Wrap(err error) error { return Error{err.Error(), err} }

// Sentence is Wrap with the message as a sentence: the first letter in upper
// case, a full stop at the end.
func Sentence(err error) error {
	return Error{strings.TrimSuffix(text.UpperFirst(err.Error()), ".") + ".", err}
}

// longestQuote is how many characters of an input are quoted.
const longestQuote = 40

// Clip shortens an input, so that it can be quoted in a message.
func Clip(s string) string {
	if r := []rune(s); len(r) > longestQuote {
		return string(r[:longestQuote]) + "..."
	}
	return s
}
