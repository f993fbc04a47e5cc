#include "app/language.h"

#include <QDateTime>
#include <QFile>
#include <QLibraryInfo>
#include <QLocale>

#include "base/phrase.h"

// Outside any namespace, as Q_INIT_RESOURCE wants it.
static void link_translations() { Q_INIT_RESOURCE(translations); }

namespace skivet::app {
namespace {

constexpr const char* context_of_all = "skivet";
QTranslator* standard = nullptr;  ///< Qt's own, for standard buttons and dialogs

/// The core speaks as the window does.
class OfTheWindow : public Language {
public:
    explicit OfTheWindow(const QTranslator* translator, const QLocale& locale) : translator_(translator) {
        const bool grouped = !(locale.numberOptions() & QLocale::OmitGroupSeparator) && locale.language() != QLocale::C;
        if (grouped) group = locale.groupSeparator().toStdString();
        if (const auto mark = locale.decimalPoint(); mark.size() == 1 && mark[0].unicode() < 128) point = mark[0].toLatin1();
    }
    [[nodiscard]] std::optional<std::string> find(std::string_view english) const override {
        const auto text = translator_->translate(context_of_all, std::string(english).c_str(), nullptr, -1);
        return text.isEmpty() ? std::nullopt : std::optional(text.toStdString());
    }

private:
    const QTranslator* translator_;
};

}  // namespace

QString ByText::translate(const char*, const char* text, const char* comment, int n) const {
    return QTranslator::translate(context_of_all, text, comment, n);
}

const std::vector<KnownLanguage>& known_languages() {
    static const std::vector<KnownLanguage> all = {{"en", QStringLiteral("English")}, {"de", QStringLiteral("Deutsch")}};
    return all;
}

std::string language_meant(const std::string& wanted, const QStringList& of_system) {
    const auto is_known = [](const std::string& token) {
        return std::any_of(known_languages().begin(), known_languages().end(), [&](const KnownLanguage& l) { return l.token == token; });
    };
    if (is_known(wanted)) return wanted;
    for (const auto& language : of_system)
        if (const auto token = language.section(QLatin1Char('-'), 0, 0).section(QLatin1Char('_'), 0, 0).toStdString(); is_known(token))
            return token;
    return "en";
}

void speak_with(QTranslator* translator) {
    // They live as long as the program: whoever is in the middle of a text may still look at the one before.
    static QTranslator* before = nullptr;
    if (before) QCoreApplication::removeTranslator(before);
    if (standard) QCoreApplication::removeTranslator(std::exchange(standard, nullptr));
    before = translator;
    speak(translator ? new OfTheWindow(translator, QLocale()) : nullptr);
    if (translator) QCoreApplication::installTranslator(translator);
}

void speak_language(const std::string& token) {
    link_translations();
    // The country's ways stay where its language does.
    const auto system = QLocale::system();
    const auto locale = QLocale::languageToCode(system.language()).toStdString() == token ? system : QLocale(QString::fromStdString(token));
    QLocale::setDefault(locale);
    if (token == "en") return;
    auto* ours = new ByText(QCoreApplication::instance());
    if (ours->load(QStringLiteral(":/translations/skivet_%1.qm").arg(QString::fromStdString(token)))) speak_with(ours);
    auto* qt = new QTranslator(QCoreApplication::instance());
    if (!qt->load(QStringLiteral("qtbase_") + QString::fromStdString(token), QLibraryInfo::path(QLibraryInfo::TranslationsPath))) return;
    QCoreApplication::installTranslator(qt);
    standard = qt;
}

namespace {
QString written(qint64 seconds, const QString& format) { return QLocale().toString(QDateTime::fromSecsSinceEpoch(seconds), format); }
}  // namespace

QString clock_text(qint64 seconds) { return written(seconds, QObject::tr("HH:mm", "how a time of the day is written")); }
QString day_text(qint64 seconds, bool year) {
    return written(seconds, year ? QObject::tr("d MMM yyyy", "how a date is written") : QObject::tr("d MMM", "how a date is written"));
}
QString moment_text(qint64 seconds) { return written(seconds, QObject::tr("d MMM HH:mm", "how a date with a time is written")); }

QString spoken(std::string_view english) { return QString::fromStdString(said(english)); }

}  // namespace skivet::app
