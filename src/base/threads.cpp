#include "base/threads.h"

#include <mutex>
#include <system_error>
#include <thread>
#include <vector>

namespace skivet {

unsigned threads_to_be_had(unsigned most) {
    std::mutex mutex;
    std::vector<std::thread> started;
    {
        // All of them wait, so that all are there at once.
        const std::lock_guard lock(mutex);
        try {
            started.reserve(most);
            while (started.size() < most) started.emplace_back([&mutex] { const std::lock_guard wait(mutex); });
        } catch (const std::system_error&) {
            // That is the answer.
        }
    }
    for (auto& thread : started) thread.join();
    return static_cast<unsigned>(started.size());
}

}  // namespace skivet
