#include "base/progress.h"

namespace skivet {

Status CancelToken::check() const {
    if (canceled()) return fail(ErrorCode::canceled, "canceled");
    return {};
}

}  // namespace skivet
