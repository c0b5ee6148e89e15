// Errors as values. A function that can fail returns Result<T>; on failure the caller's state is unchanged.
// No error holds a finished sentence: words/ turns it into one, so that it can be said in any language.
#pragma once

#include <string>
#include <tl/expected.hpp>
#include <utility>

namespace yr {

enum class ErrorCode {
    empty,              // nothing where a value is needed
    not_a_number,       // no number could be read
    unknown_unit,       // a number followed by a unit nobody knows
    wrong_dimension,    // a known unit of another kind, such as metres where amps are asked for
    out_of_range,       // a value that cannot be, such as a negative length
    unknown_size,       // a wire size that no table holds
    unknown_name,       // a word from a fixed list was expected
    bad_json,           // the text is not JSON
    not_a_plan,         // JSON, but not a plan of ours
    newer_version,      // a plan written by a later version of the program
    schema,             // JSON that breaks the published schema
    duplicate_id,       // two things with one id
    missing_reference,  // a thing names another that does not exist
    unreadable_file,    // the file could not be opened or read
    unwritable_file     // the file could not be written
};

struct Error {
    ErrorCode code{};
    std::string place;   // where: a field, a line, an argument
    std::string given;   // what stood there
    std::string wanted;  // what was expected, in the fewest words
};

template <class T>
using Result = tl::expected<T, Error>;

[[nodiscard]] inline tl::unexpected<Error> fail(ErrorCode code, std::string place = {},
                                                std::string given = {}, std::string wanted = {}) {
    return tl::unexpected<Error>(Error{code, std::move(place), std::move(given), std::move(wanted)});
}

}  // namespace yr
