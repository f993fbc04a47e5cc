#pragma once
// Long work is told to stop through a CancelToken and tells how far it is through a Progress.
#include <atomic>
#include <functional>
#include <memory>

#include "base/result.h"

namespace skivet {

/// Shared flag; copies refer to the same flag.
class CancelToken {
public:
    void cancel() const { flag_->store(true, std::memory_order_relaxed); }
    [[nodiscard]] bool canceled() const { return flag_->load(std::memory_order_relaxed); }
    /// An error of code `canceled` once canceled.
    [[nodiscard]] Status check() const;

private:
    std::shared_ptr<std::atomic<bool>> flag_ = std::make_shared<std::atomic<bool>>(false);
};

/// Counts of work done; safe to advance from several threads.
class Progress {
public:
    std::atomic<std::uint64_t> done{0};
    std::atomic<std::uint64_t> total{0};
    CancelToken cancel;
};

}  // namespace skivet
