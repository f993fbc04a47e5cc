#pragma once
#include <condition_variable>
#include <cstdint>
#include <mutex>

namespace skivet {

/// Memory that several threads share: who needs much waits until others are done. One is always let in, however much it needs, when nobody
/// else is. Whoever holds a share must not wait for another one, on the same thread or on one it waits for.
class Budget {
public:
    explicit Budget(std::uint64_t bytes) : most_(bytes) {}

    class Share {
    public:
        Share(Budget& budget, std::uint64_t bytes) : budget_(budget), bytes_(bytes) {
            std::unique_lock lock(budget_.mutex_);
            budget_.changed_.wait(
                lock, [&] { return budget_.holders_ == 0 || (bytes_ <= budget_.most_ && budget_.taken_ <= budget_.most_ - bytes_); });
            ++budget_.holders_;
            budget_.taken_ += bytes_;
        }
        Share(const Share&) = delete;
        Share& operator=(const Share&) = delete;
        ~Share() {
            {
                const std::lock_guard lock(budget_.mutex_);
                --budget_.holders_;
                budget_.taken_ -= bytes_;
            }
            budget_.changed_.notify_all();
        }

    private:
        Budget& budget_;
        std::uint64_t bytes_;
    };

private:
    std::mutex mutex_;
    std::condition_variable changed_;
    std::uint64_t most_, taken_ = 0;
    unsigned holders_ = 0;
};

}  // namespace skivet
