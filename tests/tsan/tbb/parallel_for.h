#pragma once
// What we use of oneTBB, by plain threads, for builds with ThreadSanitizer alone: it does not see how the library of the distribution,
// which was built without it, keeps its threads apart, and takes every task for a race. Here each call has threads of its own, which it
// starts and waits for; that is all that tasks may rely on anyway. A call inside another does its work by itself.
#include <algorithm>
#include <atomic>
#include <cstddef>
#include <exception>
#include <mutex>
#include <thread>
#include <vector>

namespace tbb {

template <class Value>
class blocked_range {
public:
    using const_iterator = Value;
    blocked_range(Value begin, Value end, std::size_t grain = 1) : begin_(begin), end_(end), grain_(grain) {}
    [[nodiscard]] Value begin() const { return begin_; }
    [[nodiscard]] Value end() const { return end_; }
    [[nodiscard]] std::size_t size() const { return static_cast<std::size_t>(end_ - begin_); }
    [[nodiscard]] std::size_t grainsize() const { return grain_; }

private:
    Value begin_, end_;
    std::size_t grain_;
};

struct simple_partitioner {};

namespace detail {

inline thread_local bool inside = false;
constexpr std::size_t threads = 3;

template <class Value, class Body>
void run(const blocked_range<Value>& range, const Body& body) {
    if (range.begin() >= range.end()) return;
    const auto count = static_cast<std::size_t>(range.end() - range.begin());
    const auto grain = std::max({std::size_t{1}, range.grainsize(), count / (4 * threads)});
    if (inside || count <= grain) return body(range);
    std::atomic<std::size_t> next{0};
    std::exception_ptr thrown;
    std::mutex mutex;
    const auto work = [&] {
        inside = true;
        try {
            for (std::size_t from = 0; (from = next.fetch_add(grain, std::memory_order_relaxed)) < count;)
                body(blocked_range<Value>(range.begin() + static_cast<Value>(from),
                                          range.begin() + static_cast<Value>(std::min(count, from + grain)), range.grainsize()));
        } catch (...) {
            const std::lock_guard lock(mutex);
            thrown = std::current_exception();
        }
        inside = false;
    };
    std::vector<std::thread> all;
    for (std::size_t i = 1; i < threads; ++i) all.emplace_back(work);
    work();
    for (auto& one : all) one.join();
    if (thrown) std::rethrow_exception(thrown);
}

}  // namespace detail

template <class Value, class Body>
void parallel_for(const blocked_range<Value>& range, const Body& body) {
    detail::run(range, body);
}
template <class Value, class Body>
void parallel_for(const blocked_range<Value>& range, const Body& body, simple_partitioner) {
    detail::run(range, body);
}
template <class Value, class Body>
void parallel_for(Value first, Value last, const Body& body) {
    detail::run(blocked_range<Value>(first, last), [&](const blocked_range<Value>& some) {
        for (auto i = some.begin(); i < some.end(); ++i) body(i);
    });
}

/// How many threads there are is not up to the caller here.
class global_control {
public:
    enum parameter { max_allowed_parallelism };
    global_control(parameter, std::size_t) {}
};

class task_arena {
public:
    static constexpr int automatic = -1;
    explicit task_arena(int = automatic) {}
    template <class Work>
    auto execute(const Work& work) {
        return work();
    }
};

namespace this_task_arena {
template <class Work>
auto isolate(const Work& work) {
    return work();
}
}  // namespace this_task_arena

namespace info {
inline int default_concurrency() { return static_cast<int>(detail::threads); }
}  // namespace info

}  // namespace tbb
