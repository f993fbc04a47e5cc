// Loaded before the C library, it refuses threads as a system does that has no more: pthread_create fails once SKIVET_THREADS are running
// or were started.
#include <dlfcn.h>
#include <pthread.h>
#include <atomic>
#include <cerrno>
#include <cstdlib>

extern "C" int pthread_create(pthread_t* thread, const pthread_attr_t* attributes, void* (*start)(void*), void* argument) noexcept {
    static std::atomic<int> running{0};
    static const auto* text = std::getenv("SKIVET_THREADS");
    static const int most = text ? std::atoi(text) : 1 << 20;
    using Create = int (*)(pthread_t*, const pthread_attr_t*, void* (*)(void*), void*);
    static const auto create = reinterpret_cast<Create>(::dlsym(RTLD_NEXT, "pthread_create"));
    struct Begin {
        void* (*start)(void*);
        void* argument;
    };
    if (running.fetch_add(1) >= most) {
        running.fetch_sub(1);
        return EAGAIN;
    }
    auto* begin = new Begin{start, argument};
    return create(
        thread, attributes,
        [](void* given) -> void* {
            const Begin own = *static_cast<Begin*>(given);
            delete static_cast<Begin*>(given);
            struct Ended {
                ~Ended() { running.fetch_sub(1); }
            } ended;
            return own.start(own.argument);
        },
        begin);
}
