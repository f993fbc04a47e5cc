#include "app/workshop/workshop_actions.h"

#include <QCoreApplication>

#include "app/widgets/actions.h"

namespace skivet::app {
namespace {

constexpr int with(Qt::KeyboardModifiers modifiers, Qt::Key key) { return QKeyCombination(modifiers, key).toCombined(); }
constexpr auto ctrl = Qt::ControlModifier, shift = Qt::ShiftModifier, alt = Qt::AltModifier;

constexpr WorkshopAction rows[] = {
    {"found/use", QT_TRANSLATE_NOOP("Workshop", "Use these sources"), Qt::Key_Return,
     QT_TRANSLATE_NOOP("Workshop", "Make what is ticked the project's sources, in this order")},
    {"found/back", QT_TRANSLATE_NOOP("Workshop", "Back"), Qt::Key_Escape, QT_TRANSLATE_NOOP("Workshop", "Leave the sources as they are")},
    {"found/another-folder", QT_TRANSLATE_NOOP("Workshop", "Another folder…"), Qt::Key_L,
     QT_TRANSLATE_NOOP("Workshop", "Go through the folder of another installation")},
    {"frame/before", QT_TRANSLATE_NOOP("Workshop", "Previous"), Qt::Key_B,
     QT_TRANSLATE_NOOP("Workshop", "The thing that was drawn before")},
    {"frame/next", QT_TRANSLATE_NOOP("Workshop", "Next"), Qt::Key_N, QT_TRANSLATE_NOOP("Workshop", "The thing that was drawn next")},
    {"frame/another", QT_TRANSLATE_NOOP("Workshop", "Another record…"), Qt::Key_R,
     QT_TRANSLATE_NOOP("Workshop", "Open the record of another frame")},
    {"frame/mesh", QT_TRANSLATE_NOOP("Workshop", "On its mesh"), Qt::Key_O,
     QT_TRANSLATE_NOOP("Workshop", "See the texture on what was drawn")},
    {"raw-lens/narrower", QT_TRANSLATE_NOOP("Workshop", "Narrower"), Qt::Key_Left},
    {"raw-lens/wider", QT_TRANSLATE_NOOP("Workshop", "Wider"), Qt::Key_Right},
    {"raw-lens/half", QT_TRANSLATE_NOOP("Workshop", "Half as wide"), with(shift, Qt::Key_Left)},
    {"raw-lens/double", QT_TRANSLATE_NOOP("Workshop", "Twice as wide"), with(shift, Qt::Key_Right)},
    {"raw-lens/row-back", QT_TRANSLATE_NOOP("Workshop", "A row back"), Qt::Key_Up},
    {"raw-lens/row-on", QT_TRANSLATE_NOOP("Workshop", "A row on"), Qt::Key_Down},
    {"raw-lens/byte-back", QT_TRANSLATE_NOOP("Workshop", "A byte back"), with(shift, Qt::Key_Up)},
    {"raw-lens/byte-on", QT_TRANSLATE_NOOP("Workshop", "A byte on"), with(shift, Qt::Key_Down)},
    {"raw-lens/picture-back", QT_TRANSLATE_NOOP("Workshop", "A picture back"), Qt::Key_PageUp},
    {"raw-lens/picture-on", QT_TRANSLATE_NOOP("Workshop", "A picture on"), Qt::Key_PageDown},
    {"raw-lens/next-format", QT_TRANSLATE_NOOP("Workshop", "Next format"), Qt::Key_F},
    {"raw-lens/previous-format", QT_TRANSLATE_NOOP("Workshop", "Previous format"), with(shift, Qt::Key_F)},
    {"raw-lens/smaller-pitch", QT_TRANSLATE_NOOP("Workshop", "Smaller pitch"), Qt::Key_BracketLeft},
    {"raw-lens/larger-pitch", QT_TRANSLATE_NOOP("Workshop", "Larger pitch"), Qt::Key_BracketRight},
    {"raw-lens/next-order", QT_TRANSLATE_NOOP("Workshop", "Next order"), Qt::Key_T},
    {"raw-lens/next-block-height", QT_TRANSLATE_NOOP("Workshop", "Next block height"), Qt::Key_B},
    {"raw-lens/next-palette", QT_TRANSLATE_NOOP("Workshop", "Next palette"), Qt::Key_P},
    {"raw-lens/likeliest-width", QT_TRANSLATE_NOOP("Workshop", "Take the likeliest width"), Qt::Key_W},
    {"raw-lens/likeliest-format", QT_TRANSLATE_NOOP("Workshop", "Take the likeliest format"), Qt::Key_G},
    {"raw-lens/keep", QT_TRANSLATE_NOOP("Workshop", "Keep as a sheet"), with(ctrl, Qt::Key_Return),
     QT_TRANSLATE_NOOP("Workshop", "A texture sheet that opens this file as it is seen now")},
    {"sheet-workshop/draft", QT_TRANSLATE_NOOP("Workshop", "Draft from this archive"), with(ctrl, Qt::Key_D),
     QT_TRANSLATE_NOOP("Workshop", "Look for the entry table and write a sheet that reads it; replaces the text")},
    {"sheet-workshop/prove", QT_TRANSLATE_NOOP("Workshop", "Prove writing"), with(ctrl, Qt::Key_T),
     QT_TRANSLATE_NOOP("Workshop", "On a copy: change entries, make them longer, put them back, and read everything after each step")},
    {"sheet-workshop/keep", QT_TRANSLATE_NOOP("Workshop", "Keep the sheet"), with(ctrl, Qt::Key_Return),
     QT_TRANSLATE_NOOP("Workshop", "In this project; its archives are opened with it at once")},
    {"sifting/use", QT_TRANSLATE_NOOP("Workshop", "Use what was found"), with(ctrl, Qt::Key_Return),
     QT_TRANSLATE_NOOP("Workshop", "Take the file for what sifting finds in it: its textures come into the catalog")},
    {"take/take", QT_TRANSLATE_NOOP("Workshop", "Take to the bench"), Qt::Key_Return},
    {"touch-ups/add", QT_TRANSLATE_NOOP("Workshop", "Add a touch-up"), Qt::Key_Insert,
     QT_TRANSLATE_NOOP("Workshop", "Choose what is made next")},
    {"touch-ups/earlier", QT_TRANSLATE_NOOP("Workshop", "Earlier"), with(ctrl, Qt::Key_Up),
     QT_TRANSLATE_NOOP("Workshop", "Make it before the one above")},
    {"touch-ups/later", QT_TRANSLATE_NOOP("Workshop", "Later"), with(ctrl, Qt::Key_Down),
     QT_TRANSLATE_NOOP("Workshop", "Make it after the one below")},
    {"touch-ups/remove", QT_TRANSLATE_NOOP("Workshop", "Remove"), Qt::Key_Delete, QT_TRANSLATE_NOOP("Workshop", "Leave it out")},
    {"touch-ups/lists", QT_TRANSLATE_NOOP("Workshop", "Lists"), with(ctrl, Qt::Key_L),
     QT_TRANSLATE_NOOP("Workshop", "Keep these touch-ups under a name, or use some that were kept")},
    {"touch-ups/keep", QT_TRANSLATE_NOOP("Workshop", "Keep"), with(ctrl, Qt::Key_Return),
     QT_TRANSLATE_NOOP("Workshop", "The pieces get these touch-ups; they can be changed at any time")},
    {"try-on-window/flip", QT_TRANSLATE_NOOP("Workshop", "Flip"), Qt::Key_F,
     QT_TRANSLATE_NOOP("Workshop", "The game's, yours, what the game will get")},
    {"try-on-window/islands", QT_TRANSLATE_NOOP("Workshop", "Islands"), Qt::Key_I,
     QT_TRANSLATE_NOOP("Workshop", "Where the mesh lies on the texture")},
    {"versions/go-back", QT_TRANSLATE_NOOP("Workshop", "Go back to this"), Qt::Key_Return,
     QT_TRANSLATE_NOOP("Workshop", "Write this version into the work folder; what is there now stays in the list")},
    {"versions/clear", QT_TRANSLATE_NOOP("Workshop", "Clear…"), 0,
     QT_TRANSLATE_NOOP("Workshop", "Delete the kept versions of all pieces but what lies in the work folder")},
    {"bring/bring-in", QT_TRANSLATE_NOOP("Workshop", "Bring in"), Qt::Key_Return,
     QT_TRANSLATE_NOOP("Workshop", "The ticked pictures become the edits of their textures; the folder stays as it is")},
    {"parcels/higher", QT_TRANSLATE_NOOP("Workshop", "Higher"), with(alt, Qt::Key_Up), QT_TRANSLATE_NOOP("Workshop", "It wins over more")},
    {"parcels/lower", QT_TRANSLATE_NOOP("Workshop", "Lower"), with(alt, Qt::Key_Down), QT_TRANSLATE_NOOP("Workshop", "More wins over it")},
    {"parcels/take-out", QT_TRANSLATE_NOOP("Workshop", "Take out"), Qt::Key_Delete,
     QT_TRANSLATE_NOOP("Workshop", "The game is then what the others alone make of it")},
    {"parcels/put-one-in", QT_TRANSLATE_NOOP("Workshop", "Put one in…"), Qt::Key_A,
     QT_TRANSLATE_NOOP("Workshop", "A parcel, or an archive whose paths mirror the game's")},
    {"parcels/folder", QT_TRANSLATE_NOOP("Workshop", "A folder…"), Qt::Key_F,
     QT_TRANSLATE_NOOP("Workshop", "Another mod, as a folder whose paths mirror the game's")},
    {"parcels/leave", QT_TRANSLATE_NOOP("Workshop", "Leave it"), with(ctrl, Qt::Key_Backspace),
     QT_TRANSLATE_NOOP("Workshop", "Nothing is written")},
    {"parcels/write", QT_TRANSLATE_NOOP("Workshop", "Put it in"), with(ctrl, Qt::Key_Return),
     QT_TRANSLATE_NOOP("Workshop", "Write into the game, read it back and compare")},
    {"make-parcel/make", QT_TRANSLATE_NOOP("Workshop", "Make the parcel…"), with(ctrl, Qt::Key_Return)},
    {"update/go-over", QT_TRANSLATE_NOOP("Workshop", "Let yours go over it"), Qt::Key_O},
    {"update/put-in", QT_TRANSLATE_NOOP("Workshop", "Put in again"), with(ctrl, Qt::Key_Return),
     QT_TRANSLATE_NOOP("Workshop", "Write the ticked ones into the game, in one delivery")},
    {"shipped/compare", QT_TRANSLATE_NOOP("Workshop", "Compare with it"), with(ctrl, Qt::Key_Return),
     QT_TRANSLATE_NOOP("Workshop", "What is other than in this version is told")},
    {"shipped/forget", QT_TRANSLATE_NOOP("Workshop", "Forget it"), with(ctrl, Qt::Key_Delete),
     QT_TRANSLATE_NOOP("Workshop", "The game's files stay as they are")},
    {"shipped/record", QT_TRANSLATE_NOOP("Workshop", "Record as shipped"), 0,
     QT_TRANSLATE_NOOP("Workshop", "Remember the installation as it is, so that later changes can be told")},
};

constexpr std::pair<const char*, const char*> windows[] = {
    {"found", QT_TRANSLATE_NOOP("Workshop", "Found in the game's folder")},
    {"frame", QT_TRANSLATE_NOOP("Workshop", "By frame")},
    {"raw-lens", QT_TRANSLATE_NOOP("Workshop", "Raw lens")},
    {"sheet-workshop", QT_TRANSLATE_NOOP("Workshop", "Sheet workshop")},
    {"sifting", QT_TRANSLATE_NOOP("Workshop", "Sifting")},
    {"take", QT_TRANSLATE_NOOP("Workshop", "Take…")},
    {"touch-ups", QT_TRANSLATE_NOOP("Workshop", "Touch-ups")},
    {"try-on-window", QT_TRANSLATE_NOOP("Workshop", "On the object")},
    {"versions", QT_TRANSLATE_NOOP("Workshop", "Versions")},
    {"bring", QT_TRANSLATE_NOOP("Workshop", "Bring in")},
    {"parcels", QT_TRANSLATE_NOOP("Workshop", "Parcels")},
    {"make-parcel", QT_TRANSLATE_NOOP("Workshop", "Make a parcel")},
    {"update", QT_TRANSLATE_NOOP("Workshop", "After an update")},
    {"shipped", QT_TRANSLATE_NOOP("Workshop", "As shipped")},
};

QString words(const char* text) { return *text ? QCoreApplication::translate("Workshop", text) : QString(); }

}  // namespace

QString WorkshopAction::text_in_words() const { return words(text); }

std::span<const WorkshopAction> workshop_actions() { return rows; }

QString workshop_window_of(const QString& id) {
    const auto name = id.section(QLatin1Char('/'), 0, 0);
    for (const auto& [window, title] : windows)
        if (name == QLatin1String(window)) return words(title);
    return {};
}

QAction* add_workshop_action(QWidget* window, const char* id, std::function<void()> run) {
    const auto row = std::find_if(std::begin(rows), std::end(rows), [&](const WorkshopAction& a) { return qstrcmp(a.id, id) == 0; });
    Q_ASSERT(row != std::end(rows));
    if (!run) run = [] {};
    return add_named_action(window, QLatin1String(id), row->text_in_words(), row->standard(), words(row->tip), std::move(run));
}

}  // namespace skivet::app
