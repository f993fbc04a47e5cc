#pragma once

namespace skivet {

/// How many threads this process may still start, up to `most`: so many are started for a moment. A system or a user with a limit refuses
/// more, and a library that finds that out in the middle of its work ends the process.
[[nodiscard]] unsigned threads_to_be_had(unsigned most);

}  // namespace skivet
