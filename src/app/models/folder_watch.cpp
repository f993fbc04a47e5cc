#include "app/models/folder_watch.h"

#include <sys/inotify.h>
#include <unistd.h>
#include <array>

namespace skivet::app {

FolderWatch::FolderWatch(QObject* parent) : QObject(parent), descriptor_(::inotify_init1(IN_NONBLOCK | IN_CLOEXEC)) {
    instead_.setInterval(2000);
    connect(&instead_, &QTimer::timeout, this, &FolderWatch::changed);
    if (descriptor_ < 0) return;
    auto* notifier = new QSocketNotifier(descriptor_, QSocketNotifier::Read, this);
    connect(notifier, &QSocketNotifier::activated, this, &FolderWatch::read_events);
}

FolderWatch::~FolderWatch() {
    if (descriptor_ >= 0) ::close(descriptor_);
}

void FolderWatch::set(const std::set<std::string>& folders) {
    std::set<int> gone;
    std::erase_if(watches_, [&](const auto& one) {
        const bool goes = !folders.contains(one.first);
        if (goes) gone.insert(one.second);
        return goes;
    });
    // One folder may go by two names, with one watch.
    for (const auto& [folder, watch] : watches_) gone.erase(watch);
    for (const auto watch : gone)
        if (watch >= 0) ::inotify_rm_watch(descriptor_, watch);
    bool all = true, fresh = false;
    for (const auto& folder : folders) {
        auto& watch = watches_.try_emplace(folder, -1).first->second;
        if (watch < 0) {
            constexpr auto what = IN_CLOSE_WRITE | IN_MODIFY | IN_ATTRIB | IN_CREATE | IN_DELETE | IN_MOVE | IN_DELETE_SELF | IN_MOVE_SELF;
            watch = ::inotify_add_watch(descriptor_, folder.c_str(), what | IN_ONLYDIR);
            fresh = fresh || watch >= 0;
        }
        all = all && watch >= 0;
    }
    if (all) instead_.stop();
    else if (!instead_.isActive()) instead_.start();
    if (fresh) emit began();
}

void FolderWatch::read_events() {
    alignas(inotify_event) std::array<char, 16384> buffer;
    bool any = false;
    for (;;) {
        const auto got = ::read(descriptor_, buffer.data(), buffer.size());
        if (got <= 0) break;
        any = true;
        for (ssize_t at = 0; at < got;) {
            const auto* event = reinterpret_cast<const inotify_event*>(buffer.data() + at);
            at += static_cast<ssize_t>(sizeof(inotify_event) + event->len);
            if (!(event->mask & (IN_IGNORED | IN_MOVE_SELF))) continue;
            // The folder is another one, or none, from now on: `set` looks again.
            for (auto& [folder, watch] : watches_)
                if (watch == event->wd) {
                    if (event->mask & IN_MOVE_SELF) ::inotify_rm_watch(descriptor_, watch);
                    watch = -1;
                    instead_.start();
                }
        }
    }
    if (any) emit changed();
}

}  // namespace skivet::app
