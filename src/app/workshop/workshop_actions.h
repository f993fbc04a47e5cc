#pragma once
// What one can do in the workshop's windows, with the keys. They stand here and not in the windows because the settings list them while no
// such window is open.
#include <functional>
#include <QAction>
#include <span>

namespace skivet::app {

struct WorkshopAction {
    const char* id;  ///< "raw-lens/wider": its name, and the window's in front
    const char* text;
    int key = 0;           ///< a QKeyCombination's; 0: none
    const char* tip = "";  ///< source text, as `text`
    [[nodiscard]] QString text_in_words() const;
    [[nodiscard]] QKeySequence standard() const { return key == 0 ? QKeySequence() : QKeySequence(key); }
};
[[nodiscard]] std::span<const WorkshopAction> workshop_actions();
/// What a person calls the window an action is in; empty: none of these.
[[nodiscard]] QString workshop_window_of(const QString& id);

/// The action of that name, in its window; `run` null: whoever asks connects it. Its key is the person's, or the standard one.
QAction* add_workshop_action(QWidget* window, const char* id, std::function<void()> run = {});

}  // namespace skivet::app
