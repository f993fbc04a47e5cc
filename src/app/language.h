#pragma once
// The language of the window, and of what the core says in it. Translations are found by their English text alone, wherever it is said, so
// that one text has one translation; where one text means two things it is told apart by a comment.
#include <QCoreApplication>
#include <QTranslator>
#include <string>
#include <vector>

namespace skivet::app {

/// A translation, asked by text.
class ByText : public QTranslator {
public:
    using QTranslator::QTranslator;
    [[nodiscard]] QString translate(const char* context, const char* text, const char* comment, int n) const override;
    [[nodiscard]] bool isEmpty() const override { return false; }
};

struct KnownLanguage {
    std::string token;  ///< ISO 639-1: "de"
    QString name;       ///< in the language itself
};
/// English first.
[[nodiscard]] const std::vector<KnownLanguage>& known_languages();
/// The token of the language that is meant: `wanted`, where it is known; otherwise the first of the system's that is; otherwise "en".
[[nodiscard]] std::string language_meant(const std::string& wanted, const QStringList& of_system);

/// From now on everything is said in that language, and numbers and dates are written as it has them. Called once, before windows are made
/// and threads are started. `qt`: also the standard buttons and dialogs, where the system has Qt's translations.
void speak_language(const std::string& token);
/// Speaks with this translator instead, English numbers; null: English again. For tests.
void speak_with(QTranslator* translator);

/// What the core says, in the language; for texts that are kept in English, such as the names of roles.
[[nodiscard]] QString spoken(std::string_view english);

/// "21:04", "12 May", "12 May 2026", "12 May 21:04", as the language writes them; seconds since 1970-01-01 UTC, in local time.
[[nodiscard]] QString clock_text(qint64 seconds);
[[nodiscard]] QString day_text(qint64 seconds, bool year);
[[nodiscard]] QString moment_text(qint64 seconds);

}  // namespace skivet::app
