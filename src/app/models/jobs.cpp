#include "app/models/jobs.h"

#include <malloc.h>

namespace skivet::app {

Jobs::Jobs(QObject* parent) : QObject(parent) {
    const int threads[] = {3, 1, 2, 1};
    for (std::size_t i = 0; i < std::size(pools_); ++i) pools_[i].setMaxThreadCount(threads[i]);
    timer_.setInterval(100);
    connect(&timer_, &QTimer::timeout, this, &Jobs::show_progress);
}

Jobs::~Jobs() { finish(); }

void Jobs::leave() {
    left_ = true;
    ending_.cancel();
    cancel();
    for (const auto& token : ends_) token.cancel();
    for (const auto by : {By::workers, By::pictures, By::looker}) pool(by).clear();
}

bool Jobs::is_over() {
    return std::all_of(std::begin(pools_), std::end(pools_), [](QThreadPool& pool) { return pool.waitForDone(0); });
}

void Jobs::finish() {
    leave();
    for (auto& pool : pools_) pool.waitForDone();
}

void Jobs::end_with(const CancelToken& token) { ends_.push_back(token); }

void Jobs::begin(const QString& what) {
    ++running_;
    if (!what.isEmpty()) emit activity(what, 0, 0);
}

void Jobs::end() {
    if (--running_ == 0) emit activity({}, 0, 0);
}

void Jobs::post(std::function<void()> what) { QMetaObject::invokeMethod(this, std::move(what), Qt::QueuedConnection); }

void Jobs::quietly(By by, std::function<void()> work) { pool(by).start(std::move(work)); }

void Jobs::tell(QPointer<QObject> asker, std::function<void()> what) {
    post([this, asker = std::move(asker), what = std::move(what)] {
        if (asker && !left_) what();
    });
}

void Jobs::let_go(std::vector<std::shared_ptr<const void>> old) {
    quietly(By::workers, [old = std::move(old)]() mutable {
        old.clear();
        ::malloc_trim(0);
    });
}

std::shared_ptr<Progress> Jobs::shown_progress(const QString& what) {
    auto progress = std::make_shared<Progress>();
    shown_.push_back({what, progress});
    timer_.start();
    return progress;
}

void Jobs::cancel() {
    for (const auto& shown : shown_)
        if (const auto progress = shown.progress.lock()) progress->cancel.cancel();
}

void Jobs::show_progress() {
    std::erase_if(shown_, [](const Shown& s) { return s.progress.expired(); });
    if (shown_.empty()) return timer_.stop();
    for (const auto& shown : shown_)
        if (const auto progress = shown.progress.lock(); progress && progress->total > 0)
            return emit activity(shown.what, progress->done, progress->total);
}

}  // namespace skivet::app
