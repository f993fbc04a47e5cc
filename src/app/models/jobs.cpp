#include "app/models/jobs.h"

#include <malloc.h>
#include <sys/resource.h>
#include <unistd.h>

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

quint64 Jobs::begin(const QString& what) {
    ++running_;
    const auto id = ++last_;
    if (what.isEmpty()) return id;
    named_.push_back({id, what, Clock::now()});
    emit activity(what, 0, 0);
    emit work_changed();
    return id;
}

Jobs::Named Jobs::end(quint64 id) {
    Named ended{0, {}, {}};
    if (const auto found = std::find_if(named_.begin(), named_.end(), [&](const Named& n) { return n.id == id; }); found != named_.end()) {
        ended = *found;
        named_.erase(found);
    }
    if (--running_ == 0) emit activity({}, 0, 0);
    return ended;
}

void Jobs::say_ended(const Named& ended) {
    if (ended.id == 0 || left_) return;
    emit work_changed();
    emit work_ended(ended.what, std::chrono::duration<double>(Clock::now() - ended.since).count());
}

void Jobs::post(std::function<void()> what) { QMetaObject::invokeMethod(this, std::move(what), Qt::QueuedConnection); }

void Jobs::stand_back() {
    constexpr int nice = 5;
    thread_local const bool once = [] {
        ::setpriority(PRIO_PROCESS, static_cast<id_t>(::gettid()), nice);  // Linux has it for each thread
        return true;
    }();
    (void)once;
}

void Jobs::quietly(By by, std::function<void()> work) {
    pool(by).start([this, work = std::move(work)] {
        stand_back();
        try {
            work();
        } catch (const std::bad_alloc&) {
            post([this] {
                if (!left_) emit memory_failed({});
            });
        }
    });
}

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

std::shared_ptr<Progress> Jobs::shown_progress(const QString& what, std::function<void(bool)> pause) {
    auto progress = std::make_shared<Progress>();
    show_work(what, progress, std::move(pause));
    return progress;
}

void Jobs::show_work(const QString& what, const std::shared_ptr<Progress>& progress, std::function<void(bool)> pause) {
    shown_.push_back({++last_, what, Clock::now(), progress, std::move(pause), nullptr, {}});
    timer_.start();
    emit work_changed();
}

void Jobs::cancel() {
    // One that is halted goes with the others; whoever shows it may ask for more meanwhile.
    const auto all = shown_;
    for (const auto& shown : all) cancel(shown.id);
}

void Jobs::cancel(quint64 id) {
    for (auto& shown : shown_)
        if (shown.id == id) {
            if (const auto progress = shown.progress.lock()) progress->cancel.cancel();
            shown.held = nullptr;
        }
}

void Jobs::pause(quint64 id, bool halt) {
    const auto found = std::find_if(shown_.begin(), shown_.end(), [&](const Shown& s) { return s.id == id; });
    if (found == shown_.end() || !found->pause || (found->held != nullptr) == halt) return;
    found->held = halt ? found->progress.lock() : nullptr;
    found->seen.clear();
    const auto tell = found->pause;  // it may show other work, and so move what was found
    tell(halt);
    emit work_changed();
}

std::optional<quint64> Jobs::id_of(const std::shared_ptr<Progress>& progress) const {
    for (const auto& shown : shown_)
        if (progress && shown.progress.lock() == progress) return shown.id;
    return std::nullopt;
}

std::optional<double> Jobs::Work::left() const {
    if (paused || total == 0 || rate <= 0 || done > total) return std::nullopt;
    return double(total - done) / rate;
}

std::vector<Jobs::Work> Jobs::work() const {
    std::vector<Work> out;
    const auto now = Clock::now();
    const auto since = [&](Clock::time_point begun) { return std::chrono::duration<double>(now - begun).count(); };
    for (const auto& shown : shown_) {
        const auto progress = shown.progress.lock();
        if (!progress || (progress->cancel.canceled() && !shown.held)) continue;
        Work one{shown.id,           shown.what, progress->done,         progress->total,      0,
                 since(shown.since), true,       shown.pause != nullptr, shown.held != nullptr};
        if (shown.seen.size() > 1) {
            const auto& [first, before] = shown.seen.front();
            const auto& [last, after] = shown.seen.back();
            const auto span = std::chrono::duration<double>(last - first).count();
            if (span > 0.4 && after > before) one.rate = double(after - before) / span;
        }
        out.push_back(std::move(one));
    }
    for (const auto& named : named_)
        if (std::none_of(out.begin(), out.end(), [&](const Work& w) { return w.what == named.what; }))
            out.push_back({named.id, named.what, 0, 0, 0, since(named.since)});
    std::sort(out.begin(), out.end(), [](const Work& a, const Work& b) { return a.id < b.id; });
    return out;
}

void Jobs::show_progress() {
    std::erase_if(shown_, [](const Shown& s) { return s.progress.expired(); });
    const auto now = Clock::now();
    for (auto& shown : shown_)
        if (const auto progress = shown.progress.lock(); progress && !shown.held) {
            shown.seen.emplace_back(now, progress->done);
            while (shown.seen.size() > 2 && now - shown.seen.front().first > std::chrono::seconds(5)) shown.seen.pop_front();
        }
    emit work_changed();
    if (shown_.empty()) return timer_.stop();
    for (const auto& shown : shown_)
        if (const auto progress = shown.progress.lock(); progress && progress->total > 0 && !shown.held)
            return emit activity(shown.what, progress->done, progress->total);
}

}  // namespace skivet::app
