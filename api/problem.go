package api

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gofiber/fiber/v3"

	"gyrophane/core/input"
	"gyrophane/core/text"
	"gyrophane/jobs"
	"gyrophane/store"
)

// problem answers a failed request with a problem document (RFC 9457).
func (s *Server) problem(c fiber.Ctx, err error) error {
	status, detail := http.StatusInternalServerError, "Something went wrong on the server; what you did before is kept."
	var known *fiber.Error
	if errors.As(err, &known) {
		status, detail = known.Code, known.Message
		if status == http.StatusRequestEntityTooLarge && len(c.Request().Header.ContentEncoding()) > 0 {
			status, detail = errEncoded.Code, errEncoded.Message
		}
		switch status {
		case http.StatusRequestEntityTooLarge:
			detail = fmt.Sprintf("The request is too large: %d kB at most.", largestBody>>10)
			if strings.HasPrefix(c.Path(), filesBelow) {
				detail = fmt.Sprintf("The file is too large: %d MB at most.", largestFile>>20)
			}
		case http.StatusRequestHeaderFieldsTooLarge:
			detail = "The address and headers of the request are too long: 16 kB at most."
		case http.StatusRequestTimeout:
			detail = "The request did not arrive in time; send it again."
		case http.StatusNotFound:
			if known == fiber.ErrNotFound {
				detail = "There is nothing at this address."
			}
		}
	} else {
		s.Log.Error("request failed", "id", requestID(c), "path", c.Path(), "error", err.Error())
	}
	if later(status) {
		c.Set(fiber.HeaderRetryAfter, retryAfter)
	}
	return c.Status(status).JSON(huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: detail}, "application/problem+json")
}

// retryAfter is after how many seconds one may ask again that was sent away for the moment.
const retryAfter = "2"

// later says that a status sends one away for the moment alone.
func later(status int) bool {
	return status == http.StatusTooManyRequests || status == http.StatusServiceUnavailable
}

// init makes Huma's validation errors one sentence: where, what is wrong, and
// what was given.
func init() {
	plain := huma.NewError
	huma.NewError = func(status int, message string, errs ...error) huma.StatusError {
		var sentences []string
		if status == http.StatusBadRequest && len(errs) > 0 && !strings.Contains(errs[0].Error(), unsoundJSON) {
			status = http.StatusUnprocessableEntity // it could be read, and is refused
		}
		for _, err := range errs {
			var detail *huma.ErrorDetail
			if !errors.As(err, &detail) {
				continue
			}
			if _, whole := detail.Value.(string); whole && detail.Location == "body" {
				sentences = append(sentences, text.UpperFirst(detail.Message)) // the whole of it need not be said again
				continue
			}
			at := detail.Location[strings.LastIndex(detail.Location, ".")+1:]
			given := ""
			if detail.Value != nil && detail.Value != "" {
				given = fmt.Sprintf(", not %.40s", fmt.Sprint(detail.Value))
			}
			sentences = append(sentences, at+": "+detail.Message+given)
		}
		if len(sentences) > 0 {
			return plain(status, strings.Join(sentences, "; "))
		}
		return plain(status, message, errs...)
	}
}

// refusal turns what the core and the store refuse into problem documents.
func (s *Server) refusal(err error) error {
	var refusal store.Refusal
	var conflict store.WheelConflict
	var tubeConflict store.TubeConflict
	var markConflict store.MarkConflict
	var comparisonConflict store.ComparisonConflict
	var typed input.Error
	var said huma.StatusError
	switch {
	case err == nil:
		return nil
	case errors.As(err, &said):
		return err // it is one already
	case errors.As(err, &refusal), errors.As(err, &typed):
		return huma.Error422UnprocessableEntity(err.Error())
	case errors.As(err, &conflict):
		return huma.Error409Conflict("This wheel was changed elsewhere in the meantime. Both versions are kept: choose one.")
	case errors.As(err, &tubeConflict):
		return huma.Error409Conflict("This paint was changed elsewhere in the meantime. Both versions are kept: choose one.")
	case errors.As(err, &comparisonConflict):
		return huma.Error409Conflict(text.UpperFirst(comparisonConflict.Error()) + ".")
	case errors.As(err, &markConflict):
		return huma.Error409Conflict("Nothing was marked, for " + err.Error() + ". Look at it again.")
	case errors.Is(err, store.ErrNothingToUndo):
		return huma.Error422UnprocessableEntity("There is nothing to undo: this is how it began.")
	case errors.Is(err, jobs.ErrMany):
		return huma.Error409Conflict("You asked for several others in the meantime, so this was ended. Ask again, or close the pages that you have done with.")
	case errors.Is(err, jobs.ErrNoTurn):
		return huma.Error503ServiceUnavailable("So much is waited for just now that yours did not come to its turn. Try again in a moment.")
	case errors.Is(err, jobs.ErrStopped):
		return huma.Error503ServiceUnavailable("The server is stopping just now; it will be tried again.")
	case errors.Is(err, jobs.ErrLost):
		return huma.Error500InternalServerError("This was too much for the server, and was given up. Ask for less at once.")
	case errors.Is(err, context.Canceled):
		return huma.Error409Conflict("This was left before it was done.")
	case store.ReadOnly(err):
		return huma.Error503ServiceUnavailable("The database takes no changes just now, so nothing was changed. What is kept can be looked at.")
	case errors.Is(err, errNobody):
		return huma.Error401Unauthorized("Say first who is painting.")
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("There is no such thing here, or it is another painter's.")
	case store.Unavailable(err):
		return huma.Error503ServiceUnavailable("The database does not answer just now. Nothing is lost; it will be tried again.")
	case errors.Is(err, context.DeadlineExceeded):
		return huma.Error503ServiceUnavailable("This took longer than a request may take, and was ended. Ask for less at once, or try again when less is going on.")
	}
	s.Log.Error("request failed", "error", err.Error())
	return huma.Error500InternalServerError("Something went wrong on the server; what you did before is kept.")
}
