<?xml version="1.0" encoding="utf-8"?>
<!DOCTYPE TS>
<TS version="2.1" language="de" sourcelanguage="en">
    <context>
        <name>skivet</name>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source> · %1</source>
            <translation> · %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source> · %1 s left</source>
            <translation> · noch %1 s</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>"%1" means what it means everywhere again.</source>
            <translation>„%1“ bedeutet wieder, was es überall bedeutet.</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>%1 "%2" means %3</source>
            <translation>%1 „%2“ bedeutet %3</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>%1 "%2"? %3 names, %4 with a counterpart</source>
            <translation>%1 „%2“? %3 Namen, %4 mit einem Gegenstück</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>%L1 of %L2 · %3 a second</source>
            <translation>%L1 von %L2 · %3 je Sekunde</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>%L1 of %L2 · paused</source>
            <translation>%L1 von %L2 · angehalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>%L1 written</source>
            <translation>%L1 geschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>, %1 failed: %2 says why</source>
            <translation>, %1 misslungen: %2 sagt, warum</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>, %L1 were there already</source>
            <translation>, %L1 waren schon da</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>; %1 % look like %2</source>
            <translation>; %1 % sehen aus wie %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>All %L1 that are found</source>
            <translation>Alle %L1, die gefunden sind</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>All levels</source>
            <translation>Alle Stufen</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>All textures with "%1" in their name are %2 now.</source>
            <translation>Alle Texturen mit „%1“ im Namen sind jetzt %2.</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Alpha</source>
            <translation>Alpha</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>As</source>
            <translation>Als</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>As a gray picture beside</source>
            <translation>Als graues Bild daneben</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>As in the archive</source>
            <translation>Wie im Archiv</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>As they lie in the archive</source>
            <translation>Wie sie im Archiv liegen</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Beginning</source>
            <translation>Anfang</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Cancel</source>
            <translation>Abbrechen</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Canceled. What was written stays; Export goes on from there.</source>
            <translation>Abgebrochen. Was geschrieben ist, bleibt; Exportieren macht dort weiter.</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Choose…</source>
            <translation>Wählen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Close</source>
            <translation>Schließen</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>DDS, compressed bytes untouched</source>
            <translation>DDS, gepackte Bytes unberührt</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Export</source>
            <translation>Exportieren</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Export into</source>
            <translation>Exportieren nach</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Exported to %1: %L2 written, %L3 failed.</source>
            <translation>Nach %1 exportiert: %L2 geschrieben, %L3 misslungen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Folders</source>
            <translation>Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>For a FAT32 card: cut files of 4 GiB and more</source>
            <translation>Für eine FAT32-Karte: Dateien ab 4 GiB teilen</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Go on</source>
            <translation>Weiter</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>In the picture</source>
            <translation>Im Bild</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Into</source>
            <translation>Nach</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>KTX2, compressed bytes untouched</source>
            <translation>KTX2, gepackte Bytes unberührt</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Leave out what is there already</source>
            <translation>Weglassen, was schon da ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Left out</source>
            <translation>Weggelassen</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Means this</source>
            <translation>Bedeutet das</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Naming habit</source>
            <translation>Namensgewohnheit</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Naming habits</source>
            <translation>Namensgewohnheiten</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>No habit of this game's own is known, and no word recurs like one. Alt+Shift+1 … 9 in the catalog say it from an example.</source>
            <translation>Von diesem Spiel ist keine eigene Gewohnheit bekannt, und kein Wort kehrt wie eine wieder. Alt+Umschalt+1 … 9 im Katalog sagen sie an einem Beispiel.</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>None, all in one</source>
            <translation>Keine, alles in einem</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>One for each set</source>
            <translation>Einer für jeden Satz</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>OpenEXR</source>
            <translation>OpenEXR</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>PNG, 16 bits</source>
            <translation>PNG, 16 Bit</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>PNG, or OpenEXR for floats</source>
            <translation>PNG, oder OpenEXR bei Gleitkommazahlen</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Pause</source>
            <translation>Anhalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>TGA</source>
            <translation>TGA</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>TIFF</source>
            <translation>TIFF</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>The %L1 chosen textures</source>
            <translation>Die %L1 gewählten Texturen</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>The chosen texture</source>
            <translation>Die gewählte Textur</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>The chosen word means</source>
            <translation>Das gewählte Wort bedeutet</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>The export has ended; the log says how.</source>
            <translation>Der Export ist beendet; das Protokoll sagt, wie.</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>The largest level</source>
            <translation>Die größte Stufe</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>What</source>
            <translation>Was</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>What in this game's names says what a texture is for. The usual words are known; here are those of this game, and words that recur and may be such.</source>
            <translation>Was in den Namen dieses Spiels sagt, wofür eine Textur ist. Die üblichen Wörter sind bekannt; hier stehen die dieses Spiels, und Wörter, die wiederkehren und welche sein können.</translation>
        </message>
        <message>
            <location filename="../../../src/app/catalog_dialogs.cpp" />
            <source>Which ending of "%1" says that it is %2?</source>
            <translation>Welche Endung von „%1“ sagt, dass es %2 ist?</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Add the key</source>
            <translation>Schlüssel hinzufügen</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>As recognized: %1</source>
            <translation>Wie erkannt: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>As recognized: nothing fits</source>
            <translation>Wie erkannt: nichts passt</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Command</source>
            <translation>Befehl</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Commands</source>
            <translation>Befehle</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Copy all</source>
            <translation>Alles kopieren</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Every key is tried on every archive that wants one. Values are kept in the project for your eyes only and are never shown.</source>
            <translation>Jeder Schlüssel wird an jedem Archiv versucht, das einen braucht. Die Werte liegen nur für dich im Projekt und werden nie gezeigt.</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>File</source>
            <translation>Datei</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Find a command</source>
            <translation>Befehl suchen</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Hexadecimal digits</source>
            <translation>Hexadezimale Ziffern</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Key ring</source>
            <translation>Schlüsselbund</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Keys</source>
            <translation>Schlüssel</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Kinds of archives</source>
            <translation>Arten von Archiven</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Log</source>
            <translation>Protokoll</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>No key yet</source>
            <translation>Noch kein Schlüssel</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Password</source>
            <translation>Passwort</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Remove</source>
            <translation>Entfernen</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Save as…</source>
            <translation>Speichern als…</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Save the log</source>
            <translation>Protokoll speichern</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Take it for this</source>
            <translation>Dafür halten</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>The first one that fits is taken. Choose another if you know better; it is remembered in the project.</source>
            <translation>Das erste, das passt, wird genommen. Wähle ein anderes, wenn du es besser weißt; das Projekt merkt es sich.</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Value</source>
            <translation>Wert</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>What do you want to do?</source>
            <translation>Was möchtest du tun?</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>What is %1?</source>
            <translation>Was ist %1?</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>Written as</source>
            <translation>Geschrieben als</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>as the sheet calls it, or any name</source>
            <translation>wie das Blatt ihn nennt, oder ein beliebiger Name</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>for all files named *%1</source>
            <translation>für alle Dateien namens *%1</translation>
        </message>
        <message>
            <location filename="../../../src/app/dialogs.cpp" />
            <source>path of the file</source>
            <translation>Pfad der Datei</translation>
        </message>
        <message>
            <location filename="../../../src/app/guide_window.cpp" />
            <source>Chapters</source>
            <translation>Kapitel</translation>
        </message>
        <message>
            <location filename="../../../src/app/guide_window.cpp" />
            <source>Guide</source>
            <translation>Handbuch</translation>
        </message>
        <message>
            <location filename="../../../src/app/guide_window.cpp" />
            <source>Look for words</source>
            <translation>Nach Wörtern suchen</translation>
        </message>
        <message>
            <location filename="../../../src/app/guide_window.cpp" />
            <source>Look for words in the guide</source>
            <translation>Im Handbuch nach Wörtern suchen</translation>
        </message>
        <message>
            <location filename="../../../src/app/guide_window.cpp" />
            <source>Nothing is said about this.</source>
            <translation>Darüber steht nichts.</translation>
        </message>
        <message>
            <location filename="../../../src/app/language.cpp" />
            <source>HH:mm</source>
            <comment>how a time of the day is written</comment>
            <translation>HH:mm</translation>
        </message>
        <message>
            <location filename="../../../src/app/language.cpp" />
            <source>d MMM</source>
            <comment>how a date is written</comment>
            <translation>d. MMM</translation>
        </message>
        <message>
            <location filename="../../../src/app/language.cpp" />
            <source>d MMM HH:mm</source>
            <comment>how a date with a time is written</comment>
            <translation>d. MMM HH:mm</translation>
        </message>
        <message>
            <location filename="../../../src/app/language.cpp" />
            <source>d MMM yyyy</source>
            <comment>how a date is written</comment>
            <translation>d. MMM yyyy</translation>
        </message>
        <message>
            <location filename="../../../src/app/main.cpp" />
            <source>Skivet ended by a fault the last time</source>
            <translation>Skivet ist beim letzten Mal durch einen Fehler abgebrochen</translation>
        </message>
        <message>
            <location filename="../../../src/app/main.cpp" />
            <source>What was written into games is whole, or is put back now. The report is %1</source>
            <translation>Was in Spiele geschrieben wurde, ist ganz oder wird jetzt zurückgesetzt. Der Bericht liegt in %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>A project from another place or another computer</source>
            <translation>Ein Projekt von einem anderen Ort oder Rechner</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>A project's folder</source>
            <translation>Der Ordner eines Projekts</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>A project's folder…</source>
            <translation>Ordner eines Projekts…</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>A small made-up game to try everything on</source>
            <translation>Ein kleines erfundenes Spiel, um alles auszuprobieren</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>About Skivet</source>
            <translation>Über Skivet</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>Edit</source>
            <translation>Bearbeiten</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>Finds textures inside game archives, takes them out, and puts edits back with nothing else changed.

Free software under the MIT license. The letters are B612, under the SIL Open Font License.</source>
            <translation>Findet Texturen in den Archiven eines Spiels, holt sie heraus und bringt Änderungen zurück, ohne sonst etwas zu ändern.

Freie Software unter der MIT-Lizenz. Die Schrift ist B612, unter der SIL Open Font License.</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>Game</source>
            <translation>Spiel</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>Go</source>
            <translation>Gehe zu</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>Help</source>
            <translation>Hilfe</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>How this is done, with pictures</source>
            <translation>Wie man es macht, mit Bildern</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>Look, keys, editors, where things go</source>
            <translation>Aussehen, Tasten, Programme, wohin etwas geht</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>Menu bar</source>
            <translation>Menüleiste</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>New game…</source>
            <translation>Neues Spiel…</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>Quit</source>
            <translation>Beenden</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>Settings…</source>
            <translation>Einstellungen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>Show where a game is installed; its project is made</source>
            <translation>Zeige, wo ein Spiel installiert ist; sein Projekt wird angelegt</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>Skivet</source>
            <translation>Skivet</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>The demo game cannot be made: %1</source>
            <translation>Das Probespiel kann nicht gemacht werden: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>The demo game is being made…</source>
            <translation>Das Probespiel wird gemacht…</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>The folder the game is installed in</source>
            <translation>Der Ordner, in dem das Spiel installiert ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>There is no project in %1. With "New game…" one is made for a game's folder.</source>
            <translation>In %1 ist kein Projekt. Mit „Neues Spiel…“ entsteht eines für den Ordner eines Spiels.</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>Try the demo game</source>
            <translation>Probespiel ausprobieren</translation>
        </message>
        <message>
            <location filename="../../../src/app/main_window.cpp" />
            <source>Version and licenses</source>
            <translation>Version und Lizenzen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>%1 could not be started. Look at the settings.</source>
            <translation>%1 ließ sich nicht starten. Sieh in den Einstellungen nach.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>%L1 pictures were brought in.</source>
            <translation>%L1 Bilder sind hereingeholt.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Bringing in</source>
            <translation>Hereinholen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Clearing older versions</source>
            <translation>Ältere Fassungen werden gelöscht</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Going back</source>
            <translation>Zurückgehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Looking at saved files</source>
            <translation>Gespeicherte Dateien werden angesehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Matching pictures</source>
            <translation>Bilder werden zugeordnet</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Older versions were cleared: %1 bytes</source>
            <translation>Ältere Fassungen sind gelöscht: %1 Byte</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>One picture was brought in.</source>
            <translation>Ein Bild ist hereingeholt.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Opened %1 with %2</source>
            <translation>%1 mit %2 geöffnet</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Put away</source>
            <translation>Weglegen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Put away: %1. Its file stays in the project's work folder.</source>
            <translation>Weggelegt: %1. Die Datei bleibt im Arbeitsordner des Projekts.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Reading pictures</source>
            <translation>Bilder werden gelesen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Saved while the project was closed: %1</source>
            <translation>Gespeichert, während das Projekt geschlossen war: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Saved while the project was closed: %1 and %L2 more</source>
            <translation>Gespeichert, während das Projekt geschlossen war: %1 und %L2 weitere</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Saved: %1</source>
            <translation>Gespeichert: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>The desktop has no program for this file. Name one in the settings, or open %1 yourself.</source>
            <translation>Der Desktop hat kein Programm für diese Datei. Nenne eines in den Einstellungen, oder öffne %1 selbst.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>The edit is in %1 now.</source>
            <translation>Die Bearbeitung steht jetzt in %1.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Touch up</source>
            <translation>Retuschieren</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Touching up</source>
            <translation>Retusche</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_model.cpp" />
            <source>Writing out</source>
            <translation>Wird herausgeschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_taking.cpp" />
            <source>%1 is on the bench already.</source>
            <translation>%1 liegt schon auf der Werkbank.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_taking.cpp" />
            <source>%L1 of them are on the bench already.</source>
            <translation>%L1 davon liegen schon auf der Werkbank.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_taking.cpp" />
            <source>Another size</source>
            <translation>Andere Größe</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_taking.cpp" />
            <source>On the bench: %1</source>
            <translation>Auf der Werkbank: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_taking.cpp" />
            <source>On the bench: %1, following %2</source>
            <translation>Auf der Werkbank: %1, folgt %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_taking.cpp" />
            <source>Scaling</source>
            <translation>Größe ändern</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_taking.cpp" />
            <source>Take to the bench</source>
            <translation>Auf die Werkbank</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/bench_taking.cpp" />
            <source>… and %L1 more on the bench</source>
            <translation>… und %L1 weitere auf der Werkbank</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>%1 is not as shipped: something else changed it.</source>
            <translation>%1 ist nicht wie ausgeliefert: etwas anderes hat es geändert.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>%L1 of them are not as shipped, %2 among them: something else changed them.</source>
            <translation>%L1 davon sind nicht wie ausgeliefert, darunter %2: etwas anderes hat sie geändert.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>A naming habit</source>
            <translation>Eine Namensgewohnheit</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>A role</source>
            <translation>Eine Rolle</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>An export is running already.</source>
            <translation>Ein Export läuft schon.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>Comparing pictures</source>
            <translation>Bilder werden verglichen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>Exported to %1: %L2 written, %L3 there already, %L4 failed</source>
            <translation>Nach %1 exportiert: %L2 geschrieben, %L3 schon da, %L4 misslungen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>Exporting</source>
            <translation>Exportieren läuft</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>Forget a naming habit</source>
            <translation>Namensgewohnheit vergessen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>Forget a search</source>
            <translation>Suche vergessen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>Keep a search</source>
            <translation>Suche behalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>Looking at pictures</source>
            <translation>Bilder werden angesehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>Looking for copies</source>
            <translation>Kopien werden gesucht</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>Looking for the picture</source>
            <translation>Das Bild wird gesucht</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>No other texture shows the same picture; it goes to the bench alone.</source>
            <translation>Keine andere Textur zeigt dasselbe Bild; sie kommt allein auf die Werkbank.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>Opening a texture</source>
            <translation>Textur wird geöffnet</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>Sorting</source>
            <translation>Wird sortiert</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>They stay: the project takes only what is as shipped.</source>
            <translation>Sie bleiben: das Projekt nimmt nur, was wie ausgeliefert ist.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>Writing files to drag</source>
            <translation>Dateien zum Ziehen werden geschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>nothing that is chosen is a texture</source>
            <translation>nichts Gewähltes ist eine Textur</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/catalog_model.cpp" />
            <source>there is no picture in it</source>
            <translation>darin ist kein Bild</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/contact_model.cpp" />
            <source>%1, %2</source>
            <translation>%1, %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/contact_model.cpp" />
            <source>%1, a set of %L2</source>
            <translation>%1, ein Satz von %L2</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/contact_model.cpp" />
            <source>%L1 more…</source>
            <translation>%L1 weitere…</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/contact_model.cpp" />
            <source>(no folder)</source>
            <translation>(kein Ordner)</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/contact_model.cpp" />
            <source>Also</source>
            <translation>Außerdem</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/contact_model.cpp" />
            <source>to %1</source>
            <translation>bis %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/delivery_model.cpp" />
            <source>%1 becomes %2 with the next delivery.</source>
            <translation>%1 heißt mit der nächsten Lieferung %2.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/delivery_model.cpp" />
            <source>%1 entries go with the next delivery.</source>
            <translation>%1 Einträge fallen mit der nächsten Lieferung weg.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/delivery_model.cpp" />
            <source>%1 goes with the next delivery.</source>
            <translation>%1 fällt mit der nächsten Lieferung weg.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/delivery_model.cpp" />
            <source>%1 of them are on the bench. Put them away first.</source>
            <translation>%1 davon liegen auf der Werkbank. Lege sie erst weg.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/delivery_model.cpp" />
            <source>Delivered into %1: %2 bytes written, read back and the same</source>
            <translation>Nach %1 geliefert: %2 Byte geschrieben, zurückgelesen und gleich</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/delivery_model.cpp" />
            <source>Delivering</source>
            <translation>Wird geliefert</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/delivery_model.cpp" />
            <source>Leave changes of entries</source>
            <translation>Änderungen an Einträgen lassen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/delivery_model.cpp" />
            <source>Planning</source>
            <translation>Wird geplant</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/delivery_model.cpp" />
            <source>Putting back</source>
            <translation>Wird zurückgelegt</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/delivery_model.cpp" />
            <source>Rename or take out entries</source>
            <translation>Einträge umbenennen oder herausnehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/delivery_model.cpp" />
            <source>The old bytes are back.</source>
            <translation>Die alten Bytes sind zurück.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/delivery_model.cpp" />
            <source>Where it is delivered</source>
            <translation>Wohin geliefert wird</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/entry_table.cpp" />
            <source>%1 mips</source>
            <translation>%1 Mips</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/entry_table.cpp" />
            <source>%1 · %2 · %3 · %4</source>
            <translation>%1 · %2 · %3 · %4</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/entry_table.cpp" />
            <source>At</source>
            <translation>Bei</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/entry_table.cpp" />
            <source>Entry</source>
            <translation>Eintrag</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/entry_table.cpp" />
            <source>Packed as</source>
            <translation>Gepackt als</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/entry_table.cpp" />
            <source>Size</source>
            <translation>Größe</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/entry_table.cpp" />
            <source>What it is</source>
            <translation>Was es ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/entry_table.cpp" />
            <source>archive</source>
            <translation>Archiv</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/entry_table.cpp" />
            <source>image</source>
            <translation>Bild</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/entry_table.cpp" />
            <source>mesh</source>
            <translation>Netz</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/entry_table.cpp" />
            <source>one level</source>
            <translation>eine Stufe</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/entry_table.cpp" />
            <source>other data</source>
            <translation>andere Daten</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/entry_table.cpp" />
            <source>texture</source>
            <translation>Textur</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/fit_model.cpp" />
            <source>Another format</source>
            <translation>Anderes Format</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/fit_model.cpp" />
            <source>Fitting</source>
            <translation>Anprobe</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/fit_model.cpp" />
            <source>Looking at what was saved</source>
            <translation>Gespeichertes wird angesehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/fit_model.cpp" />
            <source>Mend</source>
            <translation>Nachbessern</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/fit_model.cpp" />
            <source>Mend all</source>
            <translation>Alle nachbessern</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/fit_model.cpp" />
            <source>The file cannot be read</source>
            <translation>Die Datei kann nicht gelesen werden</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/found_model.cpp" />
            <source>Going through the game's folder</source>
            <translation>Der Ordner des Spiels wird durchgesehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/found_model.cpp" />
            <source>Sources of the game's folder</source>
            <translation>Quellen aus dem Ordner des Spiels</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/frame_model.cpp" />
            <source>Reading a frame record</source>
            <translation>Eine Bildaufnahme wird gelesen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/frame_model.cpp" />
            <source>Reading textures</source>
            <translation>Texturen werden gelesen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/frame_model.cpp" />
            <source>Saving a texture</source>
            <translation>Eine Textur wird gespeichert</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/frame_model.cpp" />
            <source>The record has no picture of it.</source>
            <translation>Die Aufnahme hat kein Bild davon.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/frame_model.cpp" />
            <source>What was captured is a file that ends with %1.</source>
            <translation>Was aufgenommen wurde, ist eine Datei mit der Endung %1.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/game_process.cpp" />
            <source>Say in the settings how the game is started.</source>
            <translation>Sage in den Einstellungen, wie das Spiel gestartet wird.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/game_process.cpp" />
            <source>Started %1</source>
            <translation>%1 gestartet</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/game_process.cpp" />
            <source>The game %1</source>
            <translation>Das Spiel %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/game_process.cpp" />
            <source>The game could not be started: %1</source>
            <translation>Das Spiel ließ sich nicht starten: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/game_process.cpp" />
            <source>The game is running; it shows what was delivered.</source>
            <translation>Das Spiel läuft; es zeigt, was geliefert ist.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/game_process.cpp" />
            <source>could not be started</source>
            <translation>ließ sich nicht starten</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/game_process.cpp" />
            <source>ended</source>
            <translation>ist beendet</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/game_process.cpp" />
            <source>ended abruptly</source>
            <translation>ist plötzlich beendet</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/game_process.cpp" />
            <source>ended with code %1</source>
            <translation>ist mit Code %1 beendet</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/game_process.cpp" />
            <source>running since %1</source>
            <translation>läuft seit %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/game_process.cpp" />
            <source>… %L1 bytes more …</source>
            <translation>… %L1 Byte mehr …</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/kin_model.cpp" />
            <source>Looking for what goes with it</source>
            <translation>Wird gesucht, was dazugehört</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/parcel_model.cpp" />
            <source>%1 as another has it</source>
            <translation>%1, wie ein anderer es hat</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/parcel_model.cpp" />
            <source>%1: %2 for textures of %3</source>
            <translation>%1: %2 für Texturen von %3</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/parcel_model.cpp" />
            <source>Looking at the parcels</source>
            <translation>Pakete werden angesehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/parcel_model.cpp" />
            <source>Putting the parcel together</source>
            <translation>Das Paket wird zusammengestellt</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/parcel_model.cpp" />
            <source>Reading %1</source>
            <translation>%1 wird gelesen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/parcel_model.cpp" />
            <source>Writing</source>
            <translation>Wird geschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/parcel_model.cpp" />
            <source>Writing the parcel</source>
            <translation>Das Paket wird geschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/parcel_model.cpp" />
            <source>parcels in another order</source>
            <translation>Pakete in anderer Reihenfolge</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/project_store.cpp" />
            <source>"%1" was cut short last time. The old bytes were put back.</source>
            <translation>„%1“ wurde beim letzten Mal unterbrochen. Die alten Bytes sind zurückgelegt.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/project_store.cpp" />
            <source>Done again: %1</source>
            <translation>Wieder getan: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/project_store.cpp" />
            <source>Keeping the sheet</source>
            <translation>Blatt wird aufgehoben</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/project_store.cpp" />
            <source>Looking whether the game changed</source>
            <translation>Wird nachgesehen, ob sich das Spiel geändert hat</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/project_store.cpp" />
            <source>No project is open, so there is nowhere to keep this.</source>
            <translation>Es ist kein Projekt offen, also gibt es keinen Ort dafür.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/project_store.cpp" />
            <source>Opening the project</source>
            <translation>Das Projekt wird geöffnet</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/project_store.cpp" />
            <source>The key "%1" is in the key ring</source>
            <translation>Der Schlüssel „%1“ ist am Schlüsselbund</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/project_store.cpp" />
            <source>The project's last good copy is used; the file that could not be read is kept beside it.</source>
            <translation>Die letzte gute Kopie des Projekts wird benutzt; die Datei, die nicht zu lesen war, liegt daneben.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/project_store.cpp" />
            <source>The sheet is kept as %1</source>
            <translation>Das Blatt ist als %1 aufgehoben</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/project_store.cpp" />
            <source>Undone: %1</source>
            <translation>Rückgängig gemacht: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/project_store.cpp" />
            <source>Where deliveries go</source>
            <translation>Wohin Lieferungen gehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/project_store.cpp" />
            <source>a packer needs the command that unpacks</source>
            <translation>ein Packer braucht den Befehl, der auspackt</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/project_store.cpp" />
            <source>no packer is chosen</source>
            <translation>kein Packer ist gewählt</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/project_store.cpp" />
            <source>no project is open</source>
            <translation>kein Projekt ist offen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/shipped_model.cpp" />
            <source>%1 of the game's textures were changed by something else. Sources says which.</source>
            <translation>%1 Texturen des Spiels hat etwas anderes geändert. Quellen sagt, welche.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/shipped_model.cpp" />
            <source>Comparing with what was shipped</source>
            <translation>Wird mit dem Ausgelieferten verglichen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/shipped_model.cpp" />
            <source>It is the version that is compared with. Compare with another one first.</source>
            <translation>Mit dieser Version wird verglichen. Vergleiche erst mit einer anderen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/shipped_model.cpp" />
            <source>Recording what was shipped</source>
            <translation>Wird aufgenommen, was ausgeliefert wurde</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/shipped_model.cpp" />
            <source>The game was not looked through to its end yet, so there is nothing whole to record.</source>
            <translation>Das Spiel ist noch nicht zu Ende durchgesehen, es gibt also noch nichts Ganzes aufzunehmen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/shipped_model.cpp" />
            <source>The installation as it is now counts as shipped.</source>
            <translation>Die Installation, wie sie jetzt ist, gilt als ausgeliefert.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/sources_model.cpp" />
            <source>%1 is in the list already.</source>
            <translation>%1 steht schon in der Liste.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/sources_model.cpp" />
            <source>Add a source</source>
            <translation>Quelle hinzufügen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/sources_model.cpp" />
            <source>Another load order</source>
            <translation>Andere Ladereihenfolge</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/sources_model.cpp" />
            <source>Giving space back</source>
            <translation>Platz wird zurückgegeben</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/sources_model.cpp" />
            <source>Looking through the archives</source>
            <translation>Die Archive werden durchgesehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/sources_model.cpp" />
            <source>Names for entries</source>
            <translation>Namen für Einträge</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/sources_model.cpp" />
            <source>Remove a source</source>
            <translation>Quelle entfernen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/sources_model.cpp" />
            <source>Stopped looking through the archives. They are looked through again when the project is opened or its sources change.</source>
            <translation>Das Durchsehen der Archive ist angehalten. Sie werden durchgesehen, wenn das Projekt geöffnet wird oder seine Quellen sich ändern.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/sources_model.cpp" />
            <source>Switch a source off</source>
            <translation>Quelle abschalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/sources_model.cpp" />
            <source>Switch a source on</source>
            <translation>Quelle einschalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/sources_model.cpp" />
            <source>The space is given back.</source>
            <translation>Der Platz ist zurückgegeben.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/sources_model.cpp" />
            <source>What a source belongs to</source>
            <translation>Wozu eine Quelle gehört</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/sources_model.cpp" />
            <source>What a source is taken for</source>
            <translation>Wofür eine Quelle gehalten wird</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/try_on_dressing.cpp" />
            <source>Islands are saved as .png or .svg, not as %1.</source>
            <translation>Inseln werden als .png oder .svg gespeichert, nicht als %1.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/try_on_dressing.cpp" />
            <source>Its source is not open.</source>
            <translation>Ihre Quelle ist nicht offen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/try_on_dressing.cpp" />
            <source>Reading a mesh</source>
            <translation>Ein Netz wird gelesen</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/try_on_dressing.cpp" />
            <source>Saving the islands</source>
            <translation>Die Inseln werden gespeichert</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/try_on_model.cpp" />
            <source>Choose a texture to see it on its object.</source>
            <translation>Wähle eine Textur, um sie auf ihrem Ding zu sehen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/try_on_model.cpp" />
            <source>Looking for meshes</source>
            <translation>Netze werden gesucht</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/try_on_model.cpp" />
            <source>Looking for what it lies on…</source>
            <translation>Gesucht wird, worauf sie liegt…</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/try_on_model.cpp" />
            <source>Nothing of it is on: switch a part on.</source>
            <translation>Nichts davon ist an: Schalte einen Teil ein.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/try_on_model.cpp" />
            <source>Reading the mesh…</source>
            <translation>Das Netz wird gelesen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/try_on_model.cpp" />
            <source>chosen by you</source>
            <translation>von dir gewählt</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/try_on_model.cpp" />
            <source>part %L1</source>
            <translation>Teil %L1</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/update_model.cpp" />
            <source>%1 pieces are in the game again.</source>
            <translation>%1 Stücke sind wieder im Spiel.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/update_model.cpp" />
            <source>1 piece is in the game again.</source>
            <translation>1 Stück ist wieder im Spiel.</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/update_model.cpp" />
            <source>Putting it in again</source>
            <translation>Wird wieder hineingebracht</translation>
        </message>
        <message>
            <location filename="../../../src/app/models/update_model.cpp" />
            <source>The game's files were changed by something else. Delivery shows what became of your work.</source>
            <translation>Etwas anderes hat die Dateien des Spiels geändert. Lieferung zeigt, was aus deiner Arbeit wurde.</translation>
        </message>
        <message>
            <location filename="../../../src/app/open_windows.cpp" />
            <source>%1 can be put into each of the games that are open.</source>
            <translation>%1 kann in jedes der offenen Spiele gebracht werden.</translation>
        </message>
        <message>
            <location filename="../../../src/app/open_windows.cpp" />
            <source>Which game is it for?</source>
            <translation>Für welches Spiel ist es?</translation>
        </message>
        <message>
            <location filename="../../../src/app/packers_dialog.cpp" />
            <source>%1  —  has no program yet</source>
            <translation>%1  —  hat noch kein Programm</translation>
        </message>
        <message>
            <location filename="../../../src/app/packers_dialog.cpp" />
            <source>Keep</source>
            <translation>Behalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/packers_dialog.cpp" />
            <source>No sheet asks for one yet</source>
            <translation>Noch verlangt kein Blatt eines</translation>
        </message>
        <message>
            <location filename="../../../src/app/packers_dialog.cpp" />
            <source>Packers</source>
            <translation>Packer</translation>
        </message>
        <message>
            <location filename="../../../src/app/packers_dialog.cpp" />
            <source>Packs with</source>
            <translation>Packt mit</translation>
        </message>
        <message>
            <location filename="../../../src/app/packers_dialog.cpp" />
            <source>Some sheets want a packer that nobody may ship. Name your own program for it; it runs without network and without your files.</source>
            <translation>Manche Blätter brauchen einen Packer, den niemand mitliefern darf. Nenne dein eigenes Programm dafür; es läuft ohne Netz und ohne deine Dateien.</translation>
        </message>
        <message>
            <location filename="../../../src/app/packers_dialog.cpp" />
            <source>Unpacks with</source>
            <translation>Entpackt mit</translation>
        </message>
        <message>
            <location filename="../../../src/app/packers_dialog.cpp" />
            <source>program and arguments; {size} is the unpacked size</source>
            <translation>Programm und Argumente; {size} ist die entpackte Größe</translation>
        </message>
        <message>
            <location filename="../../../src/app/packers_dialog.cpp" />
            <source>without one its entries can only be read</source>
            <translation>ohne eines lassen sich seine Einträge nur lesen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>
New: a variant of %1, comes with its delivery</source>
            <translation>
Neu: eine Variante von %1, kommt mit der Lieferung</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source> (and %L1 more)</source>
            <translation> (und %L1 weitere)</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>%1 %2</source>
            <translation>%1 %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>%1 in %2</source>
            <translation>%1 in %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>%1 min ago</source>
            <translation>vor %1 min</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>%1 was saved beside %2%3. Is it the edit now?</source>
            <translation>%1 wurde neben %2%3 gespeichert. Ist es jetzt die Bearbeitung?</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>%1 · %2</source>
            <translation>%1 · %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>%1 — %2</source>
            <translation>%1 — %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>%L1 of %L2 shown · %3</source>
            <translation>%L1 von %L2 gezeigt · %3</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Bring in…</source>
            <translation>Hereinholen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Change the chosen pieces without a paint program: colors, alpha, normals, sharpness</source>
            <translation>Die gewählten Stücke ohne Malprogramm ändern: Farben, Alpha, Normalen, Schärfe</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Choose a texture in the catalog and press Enter; its file appears here.</source>
            <translation>Wähle im Katalog eine Textur und drücke Eingabe; ihre Datei erscheint hier.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Choose textures</source>
            <translation>Texturen wählen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>FILE</source>
            <translation>DATEI</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Find a piece</source>
            <translation>Stück suchen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Go to the search field</source>
            <translation>Zum Suchfeld</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Leave it</source>
            <translation>Lassen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Look at it in Fitting</source>
            <translation>In der Anprobe ansehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Match the pictures of a folder to textures: edits made elsewhere, or by a friend</source>
            <translation>Die Bilder eines Ordners den Texturen zuordnen: anderswo oder von Freunden bearbeitet</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Mend it in Fitting</source>
            <translation>In der Anprobe nachbessern</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Name or folder</source>
            <translation>Name oder Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>ON THE BENCH</source>
            <translation>AUF DER WERKBANK</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Open folder</source>
            <translation>Ordner öffnen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Open the file with the desktop's program for it</source>
            <translation>Die Datei mit dem Programm des Desktops öffnen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Open the folder of the chosen piece's file</source>
            <translation>Den Ordner mit der Datei des gewählten Stücks öffnen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Open to edit</source>
            <translation>Bearbeiten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Order</source>
            <translation>Reihenfolge</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Pieces on the bench</source>
            <translation>Stücke auf der Werkbank</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>See what the game will get</source>
            <translation>Sehen, was das Spiel bekommen wird</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>State</source>
            <translation>Zustand</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Take the chosen pieces off the bench; their files stay in the work folder</source>
            <translation>Die gewählten Stücke von der Werkbank nehmen; ihre Dateien bleiben im Arbeitsordner</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Take the new one</source>
            <translation>Die neue nehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>The bench is empty</source>
            <translation>Die Werkbank ist leer</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>The game's</source>
            <translation>Die des Spiels</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>The game's new texture takes the place of your edit in the work folder. Your edit stays among the versions.</source>
            <translation>Die neue Textur des Spiels kommt im Arbeitsordner an die Stelle deiner Bearbeitung. Deine Bearbeitung bleibt unter den Fassungen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>The game's texture changed: take it out again</source>
            <translation>Die Textur des Spiels hat sich geändert: hole sie neu heraus</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>To fitting</source>
            <translation>Zur Anprobe</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>To the catalog</source>
            <translation>Zum Katalog</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Try in game</source>
            <translation>Ausprobieren</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Use it</source>
            <translation>Benutzen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Versions</source>
            <translation>Fassungen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>What was brought back before; go back to one of them</source>
            <translation>Was vorher zurückkam; zu einer davon zurückgehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>Yours</source>
            <translation>Deine</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>all · %L1</source>
            <translation>alle · %L1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>as taken</source>
            <translation>wie geholt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>by name</source>
            <translation>nach Namen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>follows %1</source>
            <translation>folgt %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>in the game · %1</source>
            <translation>im Spiel · %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>just now</source>
            <translation>gerade eben</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>last saved first</source>
            <translation>zuletzt gespeicherte zuerst</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>new: %1 in %2</source>
            <translation>neu: %1 in %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>not saved yet</source>
            <translation>noch nicht gespeichert</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>on the card · %1</source>
            <translation>auf der Karte · %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>saved %1 · %2</source>
            <translation>gespeichert %1 · %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>the game's texture changed since it was taken</source>
            <translation>die Textur des Spiels hat sich seit dem Holen geändert</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>touched up %1 · %2</source>
            <translation>retuschiert %1 · %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>what needs something first</source>
            <translation>was etwas braucht zuerst</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/bench_page.cpp" />
            <source>written out %1 · %2</source>
            <translation>herausgeschrieben %1 · %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>%1 dB</source>
            <translation>%1 dB</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>%1 stops (in new blocks; 99 % within %2)</source>
            <translation>%1 Blendenstufen (in neuen Blöcken; 99 % innerhalb von %2)</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>%1 · kept as it was</source>
            <translation>%1 · unverändert behalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>%1 · new · %2 of 255 off</source>
            <translation>%1 · neu · um %2 von 255 daneben</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>%1 · new · as you painted it</source>
            <translation>%1 · neu · wie du es gemalt hast</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>%1° (in new blocks; 99 % within %2°)</source>
            <translation>%1° (in neuen Blöcken; 99 % innerhalb von %2°)</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>Block at %1, %2</source>
            <translation>Block bei %1, %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>Blocks: %1 kept as they were · %2 new</source>
            <translation>Blöcke: %1 unverändert behalten · %2 neu</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>File: %1 bytes. You changed %2 texels; what the game gets is %3 from your picture.</source>
            <translation>Datei: %1 Byte. Du hast %2 Texel geändert; was das Spiel bekommt, ist %3 von deinem Bild entfernt.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>File: %1 bytes. You changed one texel; what the game gets is %2 from your picture.</source>
            <translation>Datei: %1 Byte. Du hast ein Texel geändert; was das Spiel bekommt, ist %2 von deinem Bild entfernt.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>Nothing is encoded yet.</source>
            <translation>Noch ist nichts kodiert.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>Texels at %1, %2</source>
            <translation>Texel bei %1, %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>Texels: %1 kept as they were · %2 new</source>
            <translation>Texel: %1 unverändert behalten · %2 neu</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>The game's block</source>
            <translation>Der Block des Spiels</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>What the game gets</source>
            <translation>Was das Spiel bekommt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>Your block</source>
            <translation>Dein Block</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>alpha</source>
            <translation>Alpha</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>blue</source>
            <translation>Blau</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>brightness</source>
            <translation>Helligkeit</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>green</source>
            <translation>Grün</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>new: %1</source>
            <translation>neu: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>no different</source>
            <translation>kein Unterschied</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>red</source>
            <translation>Rot</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/block_panel.cpp" />
            <source>the game's: %1</source>
            <translation>im Spiel: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_delegates.cpp" />
            <source>%1 % alike</source>
            <translation>%1 % ähnlich</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_delegates.cpp" />
            <source>%1 · shadowed</source>
            <translation>%1 · verdeckt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_delegates.cpp" />
            <source>%L1 twins</source>
            <translation>%L1 Zwillinge</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_delegates.cpp" />
            <source>1 twin</source>
            <translation>1 Zwilling</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_delegates.cpp" />
            <source>cannot be read</source>
            <translation>nicht lesbar</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_delegates.cpp" />
            <source>damaged</source>
            <translation>beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_delegates.cpp" />
            <source>part missing</source>
            <translation>Teil fehlt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_delegates.cpp" />
            <source>set of %L1</source>
            <translation>Satz von %L1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>%1  (%2)</source>
            <translation>%1  (%2)</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>%L1 of %L2</source>
            <translation>%L1 von %L2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>%L1 textures are too many to drag; Export writes them.</source>
            <translation>%L1 Texturen sind zu viele zum Ziehen; Exportieren schreibt sie.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>A variant of %1</source>
            <translation>Eine Variante von %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>A variant of it…</source>
            <translation>Eine Variante davon…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>All textures are shown over a checker.</source>
            <translation>Alle Texturen stehen über einem Schachbrett.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>All textures of the set</source>
            <translation>Alle Texturen des Satzes</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Alpha in the contact sheet</source>
            <translation>Alpha im Kontaktbogen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Alpha is shown as each texture seems to mean it.</source>
            <translation>Alpha wird so gezeigt, wie jede Textur es zu meinen scheint.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Another name in the archive, with the next delivery</source>
            <translation>Anderer Name im Archiv, mit der nächsten Lieferung</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>As meant, over a checker, or color alone</source>
            <translation>Wie gemeint, über einem Schachbrett, oder nur Farbe</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>As which file, with or without alpha, with what goes along</source>
            <translation>Als welche Datei, mit oder ohne Alpha, mit was dazu</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Back to the search</source>
            <translation>Zurück zur Suche</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>By frame…</source>
            <translation>Nach Spielbild…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>By picture…</source>
            <translation>Nach Bild…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Close all sets</source>
            <translation>Alle Sätze zuklappen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Colors are shown alone, whatever alpha is.</source>
            <translation>Farben stehen allein, wie Alpha auch ist.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Contact sheet</source>
            <translation>Kontaktbogen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Copy the picture</source>
            <translation>Bild kopieren</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Export…</source>
            <translation>Exportieren…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Find the pasted picture</source>
            <translation>Das eingefügte Bild finden</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Find what looks like an image: choose a file, drop one here, or paste it with Ctrl+V</source>
            <translation>Finden, was wie ein Bild aussieht: wähle eine Datei, ziehe eine hierher, oder füge es mit Strg+V ein</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Find what looks like the image in the clipboard</source>
            <translation>Finden, was wie das Bild in der Zwischenablage aussieht</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Hold the button a moment longer: the files are ready now.</source>
            <translation>Halte die Taste etwas länger: die Dateien sind jetzt bereit.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Islands</source>
            <translation>Inseln</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Its path in the archive from then on:</source>
            <translation>Von da an sein Pfad im Archiv:</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Its path in the archive:</source>
            <translation>Sein Pfad im Archiv:</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Keep this search, or take one that was kept</source>
            <translation>Diese Suche behalten, oder eine behaltene nehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Larger pictures</source>
            <translation>Größere Bilder</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>NARROW DOWN</source>
            <translation>EINGRENZEN</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Name, folder, format, size</source>
            <translation>Name, Ordner, Format, Größe</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Naming habits…</source>
            <translation>Namensgewohnheiten…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Narrow down</source>
            <translation>Eingrenzen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Next match</source>
            <translation>Nächster Treffer</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>No picture is shown.</source>
            <translation>Es wird kein Bild gezeigt.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>No textures yet. Add the game's archives under Sources.</source>
            <translation>Noch keine Texturen. Füge unter Quellen die Archive des Spiels hinzu.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Nothing fits this search.</source>
            <translation>Nichts passt zu dieser Suche.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Nothing looks like this picture.</source>
            <translation>Nichts sieht aus wie dieses Bild.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>On the object</source>
            <translation>Auf dem Ding</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>One card for each set</source>
            <translation>Eine Karte für jeden Satz</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Open all sets</source>
            <translation>Alle Sätze aufklappen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Out of the archive, with the next delivery; undo puts it back</source>
            <translation>Aus dem Archiv, mit der nächsten Lieferung; Rückgängig legt es zurück</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Previous match</source>
            <translation>Voriger Treffer</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Rename</source>
            <translation>Umbenennen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Rename…</source>
            <translation>Umbenennen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Role</source>
            <translation>Rolle</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Role of all named so</source>
            <translation>Rolle aller so benannten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Role of all named so: %1</source>
            <translation>Rolle aller so benannten: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Role: %1</source>
            <translation>Rolle: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Say what all textures with this ending are for</source>
            <translation>Sagen, wofür alle Texturen mit dieser Endung sind</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Say what the chosen textures are for</source>
            <translation>Sagen, wofür die gewählten Texturen sind</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Search</source>
            <translation>Suche</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Searches</source>
            <translation>Suchen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>See where the texture lies on its mesh</source>
            <translation>Sehen, wo die Textur auf ihrem Netz liegt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Show all textures</source>
            <translation>Alle Texturen zeigen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Show every texture by itself</source>
            <translation>Jede Textur für sich zeigen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Smaller pictures</source>
            <translation>Kleinere Bilder</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Take it</source>
            <translation>Nehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Take out of the game</source>
            <translation>Aus dem Spiel nehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Take the same texture under a name of its own; it comes into the archive with the delivery</source>
            <translation>Dieselbe Textur unter eigenem Namen holen; sie kommt mit der Lieferung ins Archiv</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Take the whole set to the bench</source>
            <translation>Den ganzen Satz auf die Werkbank holen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Take to the bench as DDS</source>
            <translation>Als DDS auf die Werkbank holen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Take with its copies</source>
            <translation>Mit ihren Kopien holen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Take…</source>
            <translation>Holen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>The game recorded a frame. %1 in the catalog opens it.</source>
            <translation>Das Spiel hat ein Bild aufgenommen. %1 im Katalog öffnet es.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>The next texture that was found</source>
            <translation>Die nächste gefundene Textur</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>The picture is copied.</source>
            <translation>Das Bild ist kopiert.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>The same picture elsewhere and in other sizes follows one edit</source>
            <translation>Dasselbe Bild anderswo und in anderen Größen folgt einer Bearbeitung</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>The texture before</source>
            <translation>Die Textur davor</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>What a frame of the game is made of, thing by thing, and where its textures are</source>
            <translation>Woraus ein Bild des Spiels besteht, Ding für Ding, und wo seine Texturen sind</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>What in the names says what a texture is for</source>
            <translation>Was in den Namen sagt, wofür eine Textur ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>What is shown large, for another program</source>
            <translation>Was groß gezeigt wird, für ein anderes Programm</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Where the mesh lies on the texture that is shown large</source>
            <translation>Wo das Netz auf der Textur liegt, die groß gezeigt wird</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Words in any order · "an exact phrase" · -without · * and ? · 0017 finds 17</source>
            <translation>Wörter in beliebiger Folge · "genau so" · -ohne · * und ? · 0017 findet 17</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Write it out as DDS, compressed bytes untouched</source>
            <translation>Als DDS herausschreiben, gepackte Bytes unberührt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Write the texture out as PNG, or as OpenEXR where it has floats, and watch it</source>
            <translation>Die Textur als PNG herausschreiben, als OpenEXR bei Gleitkommazahlen, und sie beobachten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>Write what is chosen, or all that is found, as files</source>
            <translation>Was gewählt oder gefunden ist als Dateien schreiben</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>as guessed</source>
            <translation>wie geraten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page.cpp" />
            <source>…</source>
            <translation>…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page_finding.cpp" />
            <source>%L1 textures have not been looked at yet.</source>
            <translation>%L1 Texturen sind noch nicht angesehen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page_finding.cpp" />
            <source>Find what looks like an image</source>
            <translation>Finden, was wie ein Bild aussieht</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page_finding.cpp" />
            <source>Forget</source>
            <translation>Vergessen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page_finding.cpp" />
            <source>Keep this search</source>
            <translation>Diese Suche behalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page_finding.cpp" />
            <source>Keep this search…</source>
            <translation>Diese Suche behalten…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page_finding.cpp" />
            <source>Name</source>
            <translation>Name</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page_finding.cpp" />
            <source>No search is kept yet</source>
            <translation>Noch keine Suche ist behalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page_finding.cpp" />
            <source>Nothing is very much like it.</source>
            <translation>Nichts ist ihm sehr ähnlich.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page_finding.cpp" />
            <source>There is no picture in the clipboard.</source>
            <translation>In der Zwischenablage ist kein Bild.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page_finding.cpp" />
            <source>What looks like %1, the most alike first.</source>
            <translation>Was wie %1 aussieht, das Ähnlichste zuerst.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page_finding.cpp" />
            <source>the pasted picture</source>
            <translation>das eingefügte Bild</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/catalog_page_finding.cpp" />
            <source>the picture</source>
            <translation>das Bild</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source> and %L1 more</source>
            <translation> und %L1 weitere</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>%1 blocks new</source>
            <translation>%1 Blöcke neu</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>%1 bytes in %L2 places of %3</source>
            <translation>%1 Byte an %L2 Stellen von %3</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>%1 bytes in one place of %2</source>
            <translation>%1 Byte an einer Stelle von %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>%1 bytes of the original</source>
            <translation>%1 Byte des Originals</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>%1 bytes written, %2 kept</source>
            <translation>%1 Byte geschrieben, %2 aufgehoben</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>%1 deliveries are undone, the newest first:</source>
            <translation>%1 Lieferungen werden zurückgenommen, die neueste zuerst:</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>%1 is listed</source>
            <translation>%1 wird eingetragen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>%1 on this disk</source>
            <translation>%1 auf dieser Platte</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>%1 parcels are out</source>
            <translation>%1 Pakete sind heraus</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>%1 pieces can go in again</source>
            <translation>%1 Stücke können wieder hinein</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>%1 stays on the bench</source>
            <translation>%1 bleibt auf der Werkbank</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>%1 wait for you to decide</source>
            <translation>%1 warten auf deine Entscheidung</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>%1 was changed by another program since it was planned. Nothing was written, and your pieces are still here.</source>
            <translation>%1 wurde seit der Planung von einem anderen Programm geändert. Nichts wurde geschrieben, und deine Stücke sind noch hier.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>%L1 copies stay as they are</source>
            <translation>%L1 Kopien bleiben, wie sie sind</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>%L1 new files, %2</source>
            <translation>%L1 neue Dateien, %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>1 block new</source>
            <translation>1 Block neu</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>1 delivery is undone:</source>
            <translation>1 Lieferung wird zurückgenommen:</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>1 parcel is out</source>
            <translation>1 Paket ist heraus</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>1 piece can go in again</source>
            <translation>1 Stück kann wieder hinein</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>1 waits for you to decide</source>
            <translation>1 wartet auf deine Entscheidung</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>A copy stays as it is</source>
            <translation>Eine Kopie bleibt, wie sie ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>A new archive with the changed entries alone, for games in which later archives win</source>
            <translation>Ein neues Archiv nur mit den geänderten Einträgen, für Spiele, bei denen spätere Archive gewinnen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>A new file of %1</source>
            <translation>Eine neue Datei von %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>After writing</source>
            <translation>Nach dem Schreiben</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>As a parcel…</source>
            <translation>Als Paket…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>As patch archives</source>
            <translation>Als Patch-Archive</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Beside the game</source>
            <translation>Neben dem Spiel</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Change where…</source>
            <translation>Ändern, wohin…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Copies of what is delivered get the same edit</source>
            <translation>Kopien des Gelieferten bekommen dieselbe Bearbeitung</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Deliver</source>
            <translation>Liefern</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Deliver %L1 changes</source>
            <translation>%L1 Änderungen liefern</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Deliver %L1 pieces</source>
            <translation>%L1 Stücke liefern</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Deliver 1 change</source>
            <translation>1 Änderung liefern</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Deliver 1 piece</source>
            <translation>1 Stück liefern</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Edit a piece and look at it in Fitting; then it can go into the game.</source>
            <translation>Bearbeite ein Stück und sieh es in der Anprobe an; dann kann es ins Spiel.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>F5 starts the game; Undo on the right takes it out again.</source>
            <translation>F5 startet das Spiel; Rückgängig rechts nimmt es wieder heraus.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Files for a card or device, in the layout of the settings</source>
            <translation>Dateien für eine Karte oder ein Gerät, so angeordnet wie in den Einstellungen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Folders, names and layouts of what is delivered beside the archives</source>
            <translation>Ordner, Namen und Anordnung dessen, was neben die Archive geliefert wird</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Free</source>
            <translation>Frei</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>HISTORY</source>
            <translation>VERLAUF</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Into the archives</source>
            <translation>In die Archive</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>It is in the game</source>
            <translation>Es ist im Spiel</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>It is on the card</source>
            <translation>Es ist auf der Karte</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>It needs a mend first.</source>
            <translation>Es braucht erst eine Nachbesserung.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Leave all of them</source>
            <translation>Alle lassen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Let them follow</source>
            <translation>Folgen lassen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Look again</source>
            <translation>Neu ansehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Loose files in the game's override folder; its archives stay as they are</source>
            <translation>Lose Dateien im bevorzugten Ordner des Spiels; seine Archive bleiben, wie sie sind</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Mend it</source>
            <translation>Nachbessern</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Nothing to deliver</source>
            <translation>Nichts zu liefern</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Nothing was delivered yet. Every delivery can be undone here.</source>
            <translation>Noch ist nichts geliefert. Jede Lieferung kann hier zurückgenommen werden.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>One file with what is edited, for other people; nothing of the game goes in</source>
            <translation>Eine Datei mit dem, was bearbeitet ist, für andere Leute; vom Spiel kommt nichts hinein</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Onto a card</source>
            <translation>Auf eine Karte</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Open the game's archives anew and plan for what they are now</source>
            <translation>Die Archive des Spiels neu öffnen und für ihren jetzigen Stand planen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Put back what the newest delivery overwrote</source>
            <translation>Zurücklegen, was die neueste Lieferung überschrieben hat</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Put everything back</source>
            <translation>Alles zurücklegen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>SAFETY</source>
            <translation>SICHERHEIT</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>See what became of it</source>
            <translation>Sehen, was daraus wurde</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>The entries themselves are replaced</source>
            <translation>Die Einträge selbst werden ersetzt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>The game changed</source>
            <translation>Das Spiel hat sich geändert</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>The game goes on showing the old picture in %1.</source>
            <translation>Das Spiel zeigt in %1 weiter das alte Bild.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>The game has these bytes already; nothing is written.</source>
            <translation>Das Spiel hat diese Bytes schon; nichts wird geschrieben.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>These wait for a delivery into the archives</source>
            <translation>Diese warten auf eine Lieferung in die Archive</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>To the bench</source>
            <translation>Zur Werkbank</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Undo</source>
            <translation>Rückgängig</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Undo every delivery, newest first; asks before</source>
            <translation>Jede Lieferung zurücknehmen, die neueste zuerst; fragt vorher</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Undo the newest</source>
            <translation>Neueste zurücknehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Vault keeps</source>
            <translation>Im Tresor</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>WHAT WILL BE WRITTEN</source>
            <translation>WAS GESCHRIEBEN WIRD</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>What the game's new version took out can go in again.</source>
            <translation>Was die neue Version des Spiels herausnahm, kann wieder hinein.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Write into the game, read it back and compare</source>
            <translation>Ins Spiel schreiben, zurücklesen und vergleichen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>Your pieces and parcels after an update of the game, and putting them in again</source>
            <translation>Deine Stücke und Pakete nach einem Update des Spiels, und sie wieder hineinbringen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>a variant of %1</source>
            <translation>eine Variante von %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>and %L1 more</source>
            <translation>und %L1 weitere</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>and %L1 more entries</source>
            <translation>und %L1 weitere Einträge</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>and %L1 more files</source>
            <translation>und %L1 weitere Dateien</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>and %L1 more pieces</source>
            <translation>und %L1 weitere Stücke</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>append</source>
            <translation>angehängt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>becomes %1</source>
            <translation>heißt dann %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>everything is read back and compared</source>
            <translation>alles wird zurückgelesen und verglichen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>in place</source>
            <translation>an Ort und Stelle</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>is taken out</source>
            <translation>fällt weg</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>new file</source>
            <translation>neue Datei</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>nothing has been written yet</source>
            <translation>noch ist nichts geschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>nothing new</source>
            <translation>nichts Neues</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>nothing: only new files are written</source>
            <translation>nichts: nur neue Dateien werden geschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/delivery_page.cpp" />
            <source>taken away</source>
            <translation>weggenommen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>   (the game's)</source>
            <translation>   (das des Spiels)</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>%1   %2 bytes%3</source>
            <translation>%1   %2 Byte%3</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>1:1</source>
            <translation>1:1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Another format…</source>
            <translation>Anderes Format…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Change the chosen pieces without a paint program</source>
            <translation>Die gewählten Stücke ohne Malprogramm ändern</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Difference</source>
            <translation>Unterschied</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Difference ×%1</source>
            <translation>Unterschied ×%1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Edit a piece of the bench and save it; it appears here by itself.</source>
            <translation>Bearbeite ein Stück der Werkbank und speichere es; es erscheint hier von selbst.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Encoding…</source>
            <translation>Wird kodiert…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>FIT LIST</source>
            <translation>BEFUNDE</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Fitting…</source>
            <translation>Wird anprobiert…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Go to the block that lost most, then to the next</source>
            <translation>Zum Block, der am meisten verlor, dann zum nächsten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>How much the difference is amplified</source>
            <translation>Wie sehr der Unterschied verstärkt ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>In all %L1</source>
            <translation>In allen %L1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Keep %1</source>
            <translation>%1 behalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Let it become %1</source>
            <translation>%1 werden lassen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Lost ×%1</source>
            <translation>Verlust ×%1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>MIPS</source>
            <translation>MIPS</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Next lost block</source>
            <translation>Nächster verlustreicher Block</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Nothing to fit yet</source>
            <translation>Noch nichts anzuprobieren</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>One picture, as large as there is room</source>
            <translation>Ein Bild, so groß wie Platz ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>One texel a pixel, or the whole picture</source>
            <translation>Ein Texel je Bildpunkt, oder das ganze Bild</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Outline the blocks that are encoded anew</source>
            <translation>Die neu kodierten Blöcke umranden</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>PIECES</source>
            <translation>STÜCKE</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Pieces</source>
            <translation>Stücke</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Press every mend of the chosen pieces' lists</source>
            <translation>Jede Nachbesserung in den Listen der gewählten Stücke drücken</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>See the pieces</source>
            <translation>Stücke ansehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>See what will be written</source>
            <translation>Sehen, was geschrieben wird</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Show</source>
            <translation>Zeigen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>The difference between your picture and what the game will get, instead of to the game's</source>
            <translation>Der Unterschied deines Bildes zu dem, was das Spiel bekommt, statt zum Original</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>The file cannot be read yet.</source>
            <translation>Die Datei kann noch nicht gelesen werden.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>The game could not read this yet. See the fit list.</source>
            <translation>Das Spiel könnte dies noch nicht lesen. Siehe die Befunde.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>The game gets</source>
            <translation>Das Spiel bekommt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>The game's, yours, what the game will get, and what differs</source>
            <translation>Das des Spiels, deines, was das Spiel bekommt, und was sich unterscheidet</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>The next picture at the same spot</source>
            <translation>Das nächste Bild an derselben Stelle</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>The same mend in every piece whose list offers it</source>
            <translation>Dieselbe Nachbesserung in jedem Stück, dessen Liste sie anbietet</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Tint the new blocks by how much of your picture they lost</source>
            <translation>Die neuen Blöcke danach färben, wie viel von deinem Bild sie verloren</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>To delivery</source>
            <translation>Zur Lieferung</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Two pictures with a line between; drag it, or press [ and ]</source>
            <translation>Zwei Bilder mit einer Linie dazwischen; ziehe sie, oder drücke [ und ]</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Where the mesh lies on the texture; mirrored ones are orange, shared ones green</source>
            <translation>Wo das Netz auf der Textur liegt; gespiegelte Inseln sind orange, geteilte grün</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>Where the texture lies on its mesh, and how it looks there</source>
            <translation>Wo die Textur auf ihrem Netz liegt und wie sie dort aussieht</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>flip</source>
            <translation>blättern</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>four</source>
            <translation>vier</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>islands</source>
            <translation>Inseln</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>loss</source>
            <translation>Verlust</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>made with: %1</source>
            <translation>gemacht mit: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>new blocks</source>
            <translation>neue Blöcke</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>on the object</source>
            <translation>auf dem Ding</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>one</source>
            <translation>eines</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>split</source>
            <translation>geteilt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>to yours</source>
            <translation>zu deinem</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>×%1</source>
            <translation>×%1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/fitting_page.cpp" />
            <source>×4</source>
            <translation>×4</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/mip_rows.cpp" />
            <source>%1, by hand</source>
            <translation>%1, von Hand</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/mip_rows.cpp" />
            <source>99 %</source>
            <translation>99 %</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/mip_rows.cpp" />
            <source>Mips, the game's and the new ones</source>
            <translation>Mips, die des Spiels und die neuen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/mip_rows.cpp" />
            <source>kept</source>
            <translation>behalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/mip_rows.cpp" />
            <source>new</source>
            <translation>neu</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/mip_rows.cpp" />
            <source>the game's</source>
            <translation>im Spiel</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/mip_strip.cpp" />
            <source>Mip %1, %2×%3</source>
            <translation>Mip %1, %2×%3</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/mip_strip.cpp" />
            <source>Mips</source>
            <translation>Mips</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/page_list.cpp" />
            <source>Bench</source>
            <translation>Werkbank</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/page_list.cpp" />
            <source>Catalog</source>
            <translation>Katalog</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/page_list.cpp" />
            <source>Delivery</source>
            <translation>Lieferung</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/page_list.cpp" />
            <source>Find a texture by typing, by narrowing down or by a picture, and take it to the bench: as a file to paint in.</source>
            <translation>Finde eine Textur durch Tippen, Eingrenzen oder ein Bild, und hole sie auf die Werkbank: als Datei zum Bemalen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/page_list.cpp" />
            <source>First the archives: show where the game is installed. Of two that hold the same file the upper one wins.</source>
            <translation>Zuerst die Archive: zeige, wo das Spiel installiert ist. Haben zwei dieselbe Datei, gewinnt das obere.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/page_list.cpp" />
            <source>Nothing is in the game yet. Here it is written, only what changed, and every delivery can be undone.</source>
            <translation>Noch ist nichts im Spiel. Hier wird es geschrieben, nur was sich änderte, und jede Lieferung lässt sich zurücknehmen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/page_list.cpp" />
            <source>Sources</source>
            <translation>Quellen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/page_list.cpp" />
            <source>What the game will really get, beside what you painted. What does not fit says so, and how to mend it.</source>
            <translation>Was das Spiel wirklich bekommt, neben dem, was du gemalt hast. Was nicht passt, sagt es, und wie es sich nachbessern lässt.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/page_list.cpp" />
            <source>What you took out. Open a piece, paint, save it where it is: Skivet notices by itself.</source>
            <translation>Was du herausgeholt hast. Öffne ein Stück, male, speichere es dort, wo es ist: Skivet merkt es von selbst.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/source_list.cpp" />
            <source>added later</source>
            <translation>später dazugekommen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/source_list.cpp" />
            <source>changed</source>
            <translation>geändert</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/source_list.cpp" />
            <source>switched off</source>
            <translation>abgeschaltet</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>%1 new things in the game's folder…</source>
            <translation>%1 neue Dinge im Ordner des Spiels…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>%1 parcels are in…</source>
            <translation>%1 Pakete sind im Spiel…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>%1 · recognized by %2 · %3 entries</source>
            <translation>%1 · erkannt: %2 · %3 Einträge</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>%1 · recognized by %2 · 1 entry</source>
            <translation>%1 · erkannt: %2 · 1 Eintrag</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>%L1 other than in %2…</source>
            <translation>%L1 anders als in %2…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>%L1 other than shipped…</source>
            <translation>%L1 anders als ausgeliefert…</translation>
        </message>
        <message numerus="yes">
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>%n texture(s)</source>
            <translation>
                <numerusform>%n Textur</numerusform>
                <numerusform>%n Texturen</numerusform>
            </translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>&amp;Base</source>
            <translation>&amp;Grundspiel</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>&amp;Extra content</source>
            <translation>&amp;Zusatzinhalt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>&amp;Nothing said</source>
            <translation>&amp;Nichts gesagt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>&amp;Other mods</source>
            <translation>&amp;Andere Mods</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>&amp;Update</source>
            <translation>&amp;Update</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>1 parcel is in…</source>
            <translation>1 Paket ist im Spiel…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Add a folder</source>
            <translation>Ordner hinzufügen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Add a folder with textures or loose files</source>
            <translation>Einen Ordner mit Texturen oder losen Dateien hinzufügen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Add a folder…</source>
            <translation>Ordner hinzufügen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Add archives</source>
            <translation>Archive hinzufügen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Add archives of the game</source>
            <translation>Archive des Spiels hinzufügen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Add archives…</source>
            <translation>Archive hinzufügen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>As shipped…</source>
            <translation>Wie ausgeliefert…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>BYTE MAP</source>
            <translation>BYTE-KARTE</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Belongs to…</source>
            <translation>Gehört zu…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Build the archive anew without what nothing uses any more; the vault keeps the way back</source>
            <translation>Das Archiv neu bauen, ohne was nichts mehr benutzt; der Tresor behält den Weg zurück</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Describe the archive's layout, with its bytes beside the text</source>
            <translation>Den Aufbau des Archivs beschreiben, mit seinen Bytes neben dem Text</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Earlier</source>
            <translation>Früher</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Entries of the source</source>
            <translation>Einträge der Quelle</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Find in the game's folder…</source>
            <translation>Im Ordner des Spiels suchen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Find names for entries that are known only by a hash inside the game's other files</source>
            <translation>Namen für Einträge, die nur durch einen Hash bekannt sind, in den anderen Dateien des Spiels finden</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Give %1 back</source>
            <translation>%1 zurückgeben</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Give space back</source>
            <translation>Platz zurückgeben</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Go through an installation for archives and loose textures</source>
            <translation>Eine Installation nach Archiven und losen Texturen durchsehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>INSIDE</source>
            <translation>INHALT</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Keys…</source>
            <translation>Schlüssel…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>LOAD ORDER</source>
            <translation>LADEREIHENFOLGE</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Later</source>
            <translation>Später</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Leave the source in the list but out of the catalog, as if the game did not have it</source>
            <translation>Die Quelle in der Liste lassen, aber nicht im Katalog, als hätte das Spiel sie nicht</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Load earlier</source>
            <translation>Früher laden</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Load later, so that it wins over more</source>
            <translation>Später laden, so dass sie über mehr gewinnt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Look for names…</source>
            <translation>Namen suchen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Look through the bytes for textures and compressed streams</source>
            <translation>Die Bytes nach Texturen und gepackten Strömen durchsehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Mods that are in the game, their order, and putting another one in</source>
            <translation>Mods, die im Spiel sind, ihre Reihenfolge, und eine weitere hineinbringen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Names for %L1…</source>
            <translation>Namen für %L1…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>No archive yet</source>
            <translation>Noch kein Archiv</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>One new thing in the game's folder…</source>
            <translation>Ein neues Ding im Ordner des Spiels…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Only for reading: %1.</source>
            <translation>Nur zum Lesen: %1.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Packers…</source>
            <translation>Packer…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Parcels…</source>
            <translation>Pakete…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Passwords and keys for encrypted archives</source>
            <translation>Passwörter und Schlüssel für verschlüsselte Archive</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Raw lens…</source>
            <translation>Rohlupe…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Remember the installation while it is clean, and see what was changed since</source>
            <translation>Die Installation merken, solange sie sauber ist, und sehen, was seitdem geändert wurde</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Say what the source is: base, update, extra content, another mod</source>
            <translation>Sagen, was die Quelle ist: Grundspiel, Update, Zusatzinhalt, andere Mod</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>See all textures</source>
            <translation>Alle Texturen ansehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>See the bytes of the chosen entry, or of the whole file, as pixels</source>
            <translation>Die Bytes des gewählten Eintrags oder der ganzen Datei als Bildpunkte sehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Sheet…</source>
            <translation>Blatt…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Show where the game is installed, or drop its archives or its folder here.</source>
            <translation>Zeige, wo das Spiel installiert ist, oder ziehe seine Archive oder seinen Ordner hierher.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Sift…</source>
            <translation>Durchsieben…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Some entries are encrypted and no key opens them. Add the archive's password or key.</source>
            <translation>Einige Einträge sind verschlüsselt, und kein Schlüssel öffnet sie. Füge das Passwort oder den Schlüssel des Archivs hinzu.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Sources in load order</source>
            <translation>Quellen in der Ladereihenfolge</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Switch off</source>
            <translation>Abschalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Switch on</source>
            <translation>Einschalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Switched off: the catalog is as if the game did not have it.</source>
            <translation>Abgeschaltet: der Katalog ist, als hätte das Spiel sie nicht.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Take the source off the list; its file stays</source>
            <translation>Die Quelle aus der Liste nehmen; ihre Datei bleibt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Taken for…</source>
            <translation>Gehalten für…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Was not there when the installation was recorded as shipped. A tool for mods may have left it: do not take originals from it.</source>
            <translation>War nicht da, als die Installation als ausgeliefert aufgenommen wurde. Ein Werkzeug für Mods kann es hinterlassen haben: nimm keine Originale daraus.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>What the source is taken for, and why; choose another kind</source>
            <translation>Wofür die Quelle gehalten wird, und warum; eine andere Art wählen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>Your own programs for packers that sheets name</source>
            <translation>Deine eigenen Programme für Packer, die Blätter nennen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>as found</source>
            <translation>wie vorgefunden</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>as shipped</source>
            <translation>wie ausgeliefert</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>being opened</source>
            <translation>wird geöffnet</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>changed by someone else</source>
            <translation>von jemand anderem geändert</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>changed by us</source>
            <translation>von uns geändert</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>not loaded</source>
            <translation>nicht geladen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>not recognized</source>
            <translation>nicht erkannt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/sources_page.cpp" />
            <source>wants a key</source>
            <translation>braucht einen Schlüssel</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source> — shadowed by a later source</source>
            <translation> — verdeckt von einer späteren Quelle</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>%1 in %2%3</source>
            <translation>%1 in %2%3</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>+</source>
            <translation>+</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>, %1 packed</source>
            <translation>, %1 gepackt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>, linear</source>
            <translation>, linear</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>, sRGB</source>
            <translation>, sRGB</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>ALIKE</source>
            <translation>ÄHNLICH</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>Brighter by one stop</source>
            <translation>Um eine Blende heller</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>Bytes</source>
            <translation>Bytes</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>Choose a texture to see it large.</source>
            <translation>Wähle eine Textur, um sie groß zu sehen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>Damage</source>
            <translation>Schaden</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>Darker by one stop</source>
            <translation>Um eine Blende dunkler</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>Next face</source>
            <translation>Nächste Fläche</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>Previous face</source>
            <translation>Vorige Fläche</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>SET</source>
            <translation>SATZ</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>Shared</source>
            <translation>Geteilt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>Take the texture to the bench with all that show the same picture: they follow its edit  (Ctrl+Shift+Enter)</source>
            <translation>Die Textur mit allen, die dasselbe Bild zeigen, auf die Werkbank holen: sie folgen ihrer Bearbeitung  (Strg+Umschalt+Eingabe)</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>Take together</source>
            <translation>Zusammen holen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>Use</source>
            <translation>Verwendung</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>Used by</source>
            <translation>Benutzt von</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>by %1: a change shows on all of them</source>
            <translation>von %1: eine Änderung zeigt sich an allen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>lies in a shared folder: a change may show in many places</source>
            <translation>liegt in einem gemeinsamen Ordner: eine Änderung kann sich an vielen Stellen zeigen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>recolored</source>
            <translation>umgefärbt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>same</source>
            <translation>gleich</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>shadowed</source>
            <translation>verdeckt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>wins</source>
            <translation>gewinnt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>‹</source>
            <translation>‹</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>›</source>
            <translation>›</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer.cpp" />
            <source>−</source>
            <translation>−</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer_picture.cpp" />
            <source>%1, %2   stored %3</source>
            <translation>%1, %2   gespeichert %3</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer_picture.cpp" />
            <source>block %1, %2</source>
            <translation>Block %1, %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer_picture.cpp" />
            <source>exposure %1%2</source>
            <translation>Belichtung %1%2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer_picture.cpp" />
            <source>face %1 of %2</source>
            <translation>Fläche %1 von %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer_picture.cpp" />
            <source>layer %1 of %2</source>
            <translation>Lage %1 von %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer_picture.cpp" />
            <source>mip %1 of %2 · %3×%4</source>
            <translation>Mip %1 von %2 · %3×%4</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer_picture.cpp" />
            <source>shown %1 %2 %3</source>
            <translation>gezeigt %1 %2 %3</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/texture_viewer_picture.cpp" />
            <source>slice %1 of %2</source>
            <translation>Schicht %1 von %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>%1   %L2 triangles</source>
            <translation>%1   %L2 Dreiecke</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>%1 × %1</source>
            <translation>%1 × %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>A click or Enter puts a mesh on alone; its box puts it on with others</source>
            <translation>Ein Klick oder Enter legt sie auf dieses Netz allein; das Kästchen nimmt es zu anderen dazu</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>A mesh</source>
            <translation>Ein Netz</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>A mesh of your own</source>
            <translation>Ein eigenes Netz</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Alone…</source>
            <translation>Allein…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Another file…</source>
            <translation>Andere Datei…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>As a picture to paint over, at the texture's size</source>
            <translation>Als Bild zum Übermalen, in der Größe der Textur</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Columns…</source>
            <translation>Spalten…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Distance</source>
            <translation>Abstand</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Drag turns, with Shift moves, with Ctrl the light; the wheel goes nearer; Home shows the whole.</source>
            <translation>Ziehen dreht, mit Umschalt verschiebt es, mit Strg bewegt es das Licht; das Rad geht näher; Pos1 zeigt das Ganze.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Draw the edges of the triangles</source>
            <translation>Die Kanten der Dreiecke zeichnen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Encoded, as it will be delivered</source>
            <translation>Kodiert, wie sie geliefert wird</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>How far away one stands: the game takes smaller mips there</source>
            <translation>Wie weit man entfernt steht: Dort nimmt das Spiel kleinere Mips</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>LIES ON</source>
            <translation>LIEGT AUF</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Level of detail</source>
            <translation>Detailstufe</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Meshes (%1)</source>
            <translation>Netze (%1)</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Meshes and their parts</source>
            <translation>Netze und ihre Teile</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Multiply by the colors of the mesh's vertices; games use them for other things, too</source>
            <translation>Mit den Farben der Punkte des Netzes malnehmen; Spiele benutzen sie auch für anderes</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Over the picture…</source>
            <translation>Über dem Bild…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Pictures (*.png *.svg)</source>
            <translation>Bilder (*.png *.svg)</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Save the islands</source>
            <translation>Die Inseln speichern</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Save the islands…</source>
            <translation>Inseln speichern…</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>So many times each way, to see its seams</source>
            <translation>So oft nebeneinander und übereinander, um ihre Nähte zu sehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Texture quality</source>
            <translation>Texturqualität</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>The light and all maps of the set; without it the colors alone</source>
            <translation>Das Licht und alle Karten des Satzes; ohne es die Farben allein</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>The mesh as the game has it for nearer and farther away</source>
            <translation>Das Netz, wie das Spiel es für nah und fern hat</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>The mesh lies on its side: its z runs upwards</source>
            <translation>Das Netz liegt auf der Seite: Seine z-Achse zeigt nach oben</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>The mip that is used: by distance as a game does it, or one for all</source>
            <translation>Der Mip, der benutzt wird: nach dem Abstand wie im Spiel, oder einer für alles</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>The normal map's green runs down the picture (DirectX), not up (OpenGL)</source>
            <translation>Das Grün der Normalenkarte zeigt im Bild nach unten (DirectX), nicht nach oben (OpenGL)</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>The object</source>
            <translation>Das Ding</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>The texture as it was painted</source>
            <translation>Die Textur, wie sie gemalt wurde</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>The texture as it was taken</source>
            <translation>Die Textur, wie sie entnommen wurde</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>The texture laid flat</source>
            <translation>Die Textur flach ausgelegt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>Tiles each way</source>
            <translation>Kacheln in jede Richtung</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>What a game's settings do: lower ones leave out the largest mips</source>
            <translation>Was Einstellungen eines Spiels tun: Niedrigere lassen die größten Mips weg</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>What the columns of this table of vertices hold</source>
            <translation>Was die Spalten dieser Punkttabelle enthalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>a quarter</source>
            <translation>ein Viertel</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>an eighth</source>
            <translation>ein Achtel</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>by distance</source>
            <translation>nach Abstand</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>detail %1</source>
            <translation>Stufe %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>far</source>
            <translation>fern</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>full</source>
            <translation>voll</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>green down</source>
            <translation>Grün nach unten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>half</source>
            <translation>halb</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>mip %1 of %2</source>
            <translation>Mip %1 von %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>mips</source>
            <translation>Mips</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>near</source>
            <translation>nah</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>quality</source>
            <translation>Qualität</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>tiles</source>
            <translation>Kacheln</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>triangles</source>
            <translation>Dreiecke</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>vertex colors</source>
            <translation>Punktfarben</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel.cpp" />
            <source>z is up</source>
            <translation>z ist oben</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>%1 % used</source>
            <translation>%1 % belegt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>%1 texels a unit</source>
            <translation>%1 Texel je Einheit</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>%1 texels to the next</source>
            <translation>%1 Texel zur nächsten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>%L1 beyond the edges</source>
            <translation>%L1 über den Rand hinaus</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>%L1 islands</source>
            <translation>%L1 Inseln</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>%L1 mirrored</source>
            <translation>%L1 gespiegelt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>%L1 shared</source>
            <translation>%L1 geteilt</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>%L1 triangles without coordinates</source>
            <translation>%L1 Dreiecke ohne Koordinaten</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>1 island</source>
            <translation>1 Insel</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>Texel %1, %2</source>
            <translation>Texel %1, %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>Texel %1, %2: nothing of the mesh</source>
            <translation>Texel %1, %2: nichts vom Netz</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>This part has other textures.</source>
            <translation>Dieser Teil hat andere Texturen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>colors mix from mip %1</source>
            <translation>Farben mischen sich ab Mip %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>island %L1 of %L2</source>
            <translation>Insel %L1 von %L2</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>mip %1</source>
            <translation>Mip %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>mirrored: lettering comes out reversed</source>
            <translation>gespiegelt: Schrift erscheint verkehrt herum</translation>
        </message>
        <message>
            <location filename="../../../src/app/pages/try_on_panel_looking.cpp" />
            <source>others lie on the same texels</source>
            <translation>andere liegen auf denselben Texeln</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>4294967295 bytes, as FAT32 holds</source>
            <translation>4294967295 Byte, so viel FAT32 fasst</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>: the path in the archive or below the game's folder, its last part, the archive's name, and base, update or extra.</source>
            <translation>: der Pfad im Archiv oder unter dem Ordner des Spiels, sein letzter Teil, der Name des Archivs, und base, update oder extra.</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>A card or device is at</source>
            <translation>Eine Karte oder ein Gerät ist bei</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>A file inside the game's folder; shown beside while the game runs</source>
            <translation>Eine Datei im Ordner des Spiels; wird gezeigt, während das Spiel läuft</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>A folder inside the game's</source>
            <translation>Ein Ordner im Ordner des Spiels</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>Editors</source>
            <translation>Programme</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>It writes a log to</source>
            <translation>Es schreibt ein Protokoll nach</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>Its environment</source>
            <translation>Seine Umgebung</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>Keys</source>
            <comment>of the keyboard</comment>
            <translation>Tasten</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>Larger files are cut into NAME.00, NAME.01 and so on</source>
            <translation>Größere Dateien werden in NAME.00, NAME.01 und so weiter geteilt</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>Loose files go to</source>
            <translation>Lose Dateien kommen nach</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>NAME=value, one a line</source>
            <translation>NAME=Wert, einer je Zeile</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>Only what is as shipped</source>
            <translation>Nur was wie ausgeliefert ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>Open %1 with</source>
            <translation>%1 öffnen mit</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>Open others with</source>
            <translation>Andere öffnen mit</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>Parts of the settings</source>
            <translation>Teile der Einstellungen</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>Patch archives are named</source>
            <translation>Patch-Archive heißen</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>Settings</source>
            <translation>Einstellungen</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>Settings of the project</source>
            <translation>Einstellungen des Projekts</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>Small pictures</source>
            <translation>Kleine Bilder</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>Start the game with</source>
            <translation>Das Spiel starten mit</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>Textures as files of their own</source>
            <translation>Texturen als eigene Dateien</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>The game</source>
            <translation>Das Spiel</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>The game's files, whole</source>
            <translation>Die Dateien des Spiels, ganz</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>The game's list of archives, inside its folder; - for none</source>
            <translation>Die Archivliste des Spiels, in seinem Ordner; - für keine</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>What something else changed since the installation was recorded does not come to the bench</source>
            <translation>Was seit der Aufnahme der Installation etwas anderes geändert hat, kommt nicht auf die Werkbank</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>as all others</source>
            <translation>wie alle anderen</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>none</source>
            <translation>keine</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>nothing but what it prints</source>
            <translation>nichts, als was es ausgibt</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>program and arguments</source>
            <translation>Programm und Argumente</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>the desktop's program for the file type</source>
            <translation>das Programm des Desktops für den Dateityp</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>the game's folder</source>
            <translation>der Ordner des Spiels</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>{file}, {folder}, {alpha} and {name} are filled in; without {file} it comes last.</source>
            <translation>{file}, {folder}, {alpha} und {name} werden eingesetzt; ohne {file} kommt die Datei zuletzt.</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>{name} is the archive's name, {n} a number</source>
            <translation>{name} ist der Name des Archivs, {n} eine Zahl</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>{path}, {file}, {archive} and {group} are filled in</source>
            <translation>{path}, {file}, {archive} und {group} werden eingesetzt</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>… and are listed in</source>
            <translation>… und stehen in</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>… and lie there as</source>
            <translation>… und liegen dort als</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>… and takes</source>
            <translation>… und nimmt</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>… in</source>
            <translation>… in</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>… of at most</source>
            <translation>… von höchstens</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_dialog.cpp" />
            <source>… which lie there as</source>
            <translation>… die dort liegen als</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>%1 %</source>
            <translation>%1 %</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>%1 is the key of both "%2" and "%3".</source>
            <translation>%1 ist die Taste für „%2“ und für „%3“.</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Action</source>
            <translation>Aktion</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Actions and their keys</source>
            <translation>Aktionen und ihre Tasten</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>An action or a key</source>
            <translation>Eine Aktion oder Taste</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>As it was</source>
            <translation>Wie sie war</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Clear</source>
            <translation>Leeren</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Everywhere</source>
            <translation>Überall</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Its key:</source>
            <translation>Ihre Taste:</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Key</source>
            <translation>Taste</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Language</source>
            <translation>Sprache</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Look</source>
            <translation>Aussehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Menus</source>
            <translation>Menüs</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>None</source>
            <translation>Keine</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Page</source>
            <translation>Seite</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Press the key the chosen action is to have</source>
            <translation>Drücke die Taste, die die gewählte Aktion haben soll</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Show the menu bar</source>
            <translation>Menüleiste zeigen</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Size of everything</source>
            <translation>Größe von allem</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Size of text and pictures</source>
            <translation>Größe von Text und Bildern</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Small pictures of textures, kept so that nothing is decoded twice. What was not looked at for longest goes first.</source>
            <translation>Kleine Bilder der Texturen, aufgehoben, damit nichts zweimal dekodiert wird. Was am längsten nicht angesehen wurde, geht zuerst.</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Start</source>
            <translation>Start</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>The language changes with the next start.</source>
            <translation>Die Sprache ändert sich mit dem nächsten Start.</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>The size changes with the next start.</source>
            <translation>Die Größe ändert sich mit dem nächsten Start.</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>They lie in</source>
            <translation>Sie liegen in</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>They may take</source>
            <translation>Sie dürfen belegen</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>They take</source>
            <translation>Sie belegen</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>Without it Alt or F10 shows the menus</source>
            <translation>Ohne sie zeigen Alt oder F10 die Menüs</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>as the system has it</source>
            <translation>wie das System</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>being cleared</source>
            <translation>wird geleert</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>being measured</source>
            <translation>wird gemessen</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>light</source>
            <translation>hell</translation>
        </message>
        <message>
            <location filename="../../../src/app/settings_pages.cpp" />
            <source>night</source>
            <translation>Nacht</translation>
        </message>
        <message numerus="yes">
            <location filename="../../../src/app/start_page.cpp" />
            <source>%n in the game</source>
            <translation>
                <numerusform>%n im Spiel</numerusform>
                <numerusform>%n im Spiel</numerusform>
            </translation>
        </message>
        <message numerus="yes">
            <location filename="../../../src/app/start_page.cpp" />
            <source>%n out</source>
            <translation>
                <numerusform>%n heraus</numerusform>
                <numerusform>%n heraus</numerusform>
            </translation>
        </message>
        <message numerus="yes">
            <location filename="../../../src/app/start_page.cpp" />
            <source>%n waiting for the game</source>
            <translation>
                <numerusform>%n wartet auf das Spiel</numerusform>
                <numerusform>%n warten auf das Spiel</numerusform>
            </translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>Another name for the project</source>
            <translation>Ein anderer Name für das Projekt</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>Go on with this game</source>
            <translation>Mit diesem Spiel weitermachen</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>No game yet</source>
            <translation>Noch kein Spiel</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>Open</source>
            <translation>Öffnen</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>Project: %1</source>
            <translation>Projekt: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>Show where a game is installed, or drop its folder here.</source>
            <translation>Zeige, wo ein Spiel installiert ist, oder ziehe seinen Ordner hierher.</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>Take off the list</source>
            <translation>Aus der Liste nehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>The project's folder stays where it is</source>
            <translation>Der Ordner des Projekts bleibt, wo er ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>The project's name:</source>
            <translation>Der Name des Projekts:</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>YOUR GAMES</source>
            <translation>DEINE SPIELE</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>Your games</source>
            <translation>Deine Spiele</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>its folder is not there</source>
            <translation>sein Ordner ist nicht da</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>no game's folder</source>
            <translation>kein Ordner eines Spiels</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>nothing on the bench</source>
            <translation>nichts auf der Werkbank</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>the game is not there</source>
            <translation>das Spiel ist nicht da</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>the game's files changed</source>
            <translation>die Dateien des Spiels haben sich geändert</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>today, %1</source>
            <translation>heute, %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/start_page.cpp" />
            <source>yesterday, %1</source>
            <translation>gestern, %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/byte_map.cpp" />
            <source>%1
%2 bytes at %3</source>
            <translation>%1
%2 Byte bei %3</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/byte_map.cpp" />
            <source>%L1 stretches, %2 of %3</source>
            <translation>%L1 Stellen, %2 von %3</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/byte_map.cpp" />
            <source>Byte map</source>
            <translation>Byte-Karte</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/byte_map.cpp" />
            <source>What will be written</source>
            <translation>Was geschrieben wird</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/byte_map.cpp" />
            <source>gap</source>
            <translation>Lücke</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/byte_map.cpp" />
            <source>gaps</source>
            <translation>Lücken</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/byte_map.cpp" />
            <source>gaps %1</source>
            <translation>Lücken %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/byte_map.cpp" />
            <source>other</source>
            <translation>anderes</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/byte_map.cpp" />
            <source>table</source>
            <translation>Tabelle</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/byte_map.cpp" />
            <source>tables</source>
            <translation>Tabellen</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/byte_map.cpp" />
            <source>textures</source>
            <translation>Texturen</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/channel_row.cpp" />
            <source>A</source>
            <translation>A</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/channel_row.cpp" />
            <source>A normal map under a light that follows the pointer</source>
            <translation>Eine Normalenkarte unter einem Licht, das dem Zeiger folgt</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/channel_row.cpp" />
            <source>Alpha as gray</source>
            <translation>Alpha als Grau</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/channel_row.cpp" />
            <source>B</source>
            <translation>B</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/channel_row.cpp" />
            <source>Blue as gray</source>
            <translation>Blau als Grau</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/channel_row.cpp" />
            <source>Color with alpha over a checker</source>
            <translation>Farbe mit Alpha über einem Schachbrett</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/channel_row.cpp" />
            <source>Color without alpha</source>
            <translation>Farbe ohne Alpha</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/channel_row.cpp" />
            <source>G</source>
            <translation>G</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/channel_row.cpp" />
            <source>Green as gray</source>
            <translation>Grün als Grau</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/channel_row.cpp" />
            <source>R</source>
            <translation>R</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/channel_row.cpp" />
            <source>Red as gray</source>
            <translation>Rot als Grau</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/channel_row.cpp" />
            <source>alpha over</source>
            <translation>mit Alpha</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/channel_row.cpp" />
            <source>color</source>
            <translation>Farbe</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/channel_row.cpp" />
            <source>lit</source>
            <translation>beleuchtet</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/compare_view.cpp" />
            <source>%1  |  %2</source>
            <translation>%1  |  %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/game_log.cpp" />
            <source>Copy</source>
            <translation>Kopieren</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/game_log.cpp" />
            <source>Copy what it said</source>
            <translation>Kopieren, was es sagte</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/game_log.cpp" />
            <source>End it</source>
            <translation>Beenden</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/game_log.cpp" />
            <source>Hide</source>
            <translation>Verbergen</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/game_log.cpp" />
            <source>It has said nothing yet.</source>
            <translation>Es hat noch nichts gesagt.</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/game_log.cpp" />
            <source>THE GAME</source>
            <translation>DAS SPIEL</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/game_log.cpp" />
            <source>What the game says</source>
            <translation>Was das Spiel sagt</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/home_button.cpp" />
            <source>%1 – to all games</source>
            <translation>%1 – zu allen Spielen</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/home_button.cpp" />
            <source>%1, to all games</source>
            <translation>%1, zu allen Spielen</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/image_view.cpp" />
            <source>%1×%2, at %3 %</source>
            <translation>%1×%2, bei %3 %</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/mesh_view.cpp" />
            <source>%1, turned by %2°, from %3° above, at %4 times the distance at which it is whole</source>
            <translation>%1, um %2° gedreht, von %3° oben, im %4-fachen des Abstands, aus dem es ganz zu sehen ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/picture_row.cpp" />
            <source>+%1</source>
            <translation>+%1</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/route.cpp" />
            <source>%1, needs you</source>
            <translation>%1, braucht dich</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/route.cpp" />
            <source>%1, station %2 of %3</source>
            <translation>%1, Station %2 von %3</translation>
        </message>
        <message>
            <location filename="../../../src/app/widgets/route.cpp" />
            <source>Route</source>
            <translation>Strecke</translation>
        </message>
        <message>
            <location filename="../../../src/app/work_panel.cpp" />
            <source>%1 a second</source>
            <translation>%1 je Sekunde</translation>
        </message>
        <message>
            <location filename="../../../src/app/work_panel.cpp" />
            <source>%1 left</source>
            <translation>noch %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/work_panel.cpp" />
            <source>%1 min %2 s</source>
            <translation>%1 min %2 s</translation>
        </message>
        <message>
            <location filename="../../../src/app/work_panel.cpp" />
            <source>%1 · in %2 · at %3</source>
            <translation>%1 · in %2 · um %3</translation>
        </message>
        <message>
            <location filename="../../../src/app/work_panel.cpp" />
            <source>%L1 h %2 min</source>
            <translation>%L1 h %2 min</translation>
        </message>
        <message>
            <location filename="../../../src/app/work_panel.cpp" />
            <source>%L1 s</source>
            <translation>%L1 s</translation>
        </message>
        <message>
            <location filename="../../../src/app/work_panel.cpp" />
            <source>BEING DONE</source>
            <translation>IN ARBEIT</translation>
        </message>
        <message>
            <location filename="../../../src/app/work_panel.cpp" />
            <source>Cancel: %1</source>
            <translation>Abbrechen: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/work_panel.cpp" />
            <source>DONE</source>
            <translation>FERTIG</translation>
        </message>
        <message>
            <location filename="../../../src/app/work_panel.cpp" />
            <source>Halt</source>
            <translation>Anhalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/work_panel.cpp" />
            <source>Nothing runs.</source>
            <translation>Nichts läuft.</translation>
        </message>
        <message>
            <location filename="../../../src/app/work_panel.cpp" />
            <source>What is being done</source>
            <translation>Was in Arbeit ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/work_panel.cpp" />
            <source>halted</source>
            <translation>angehalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>%1 cannot be read</source>
            <translation>%1 kann nicht gelesen werden</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>%1 · by %2</source>
            <translation>%1 · nach %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>%1, for %2%3</source>
            <translation>%1, für %2%3</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>%L1 fit nothing</source>
            <translation>%L1 passen zu nichts</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>%L1 matched, %L2 of them doubtful</source>
            <translation>%L1 zugeordnet, davon %L2 zweifelhaft</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>%L1 of the game's pictures are not looked at yet: matched by name only</source>
            <translation>%L1 Bilder des Spiels sind noch nicht angesehen: nur nach Namen zugeordnet</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>, doubtful: %1</source>
            <translation>, zweifelhaft: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>A file</source>
            <translation>Eine Datei</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>Bring in %L1</source>
            <translation>%L1 hereinholen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>Brought in</source>
            <translation>Hereingeholt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>Going through the folder…</source>
            <translation>Der Ordner wird durchgesehen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>Look first: %1.</source>
            <translation>Sieh erst hin: %1.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>Matched by %1.</source>
            <translation>Zugeordnet nach %1.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>No texture</source>
            <translation>Keine Textur</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>Pictures and the textures they fit, doubtful ones first</source>
            <translation>Bilder und die Texturen, zu denen sie passen, zweifelhafte zuerst</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>The game is still being listed; the pictures are matched then.</source>
            <translation>Das Spiel wird noch aufgelistet; danach werden die Bilder zugeordnet.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>The texture it is for</source>
            <translation>Die Textur, für die es ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>There is no picture in this folder.</source>
            <translation>In diesem Ordner ist kein Bild.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>fits nothing</source>
            <translation>passt zu nichts</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/bring_window.cpp" />
            <source>the game was not looked through to its end</source>
            <translation>das Spiel wurde nicht bis zum Ende durchgesehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>%1 holds</source>
            <translation>%1 enthält</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>Column</source>
            <translation>Spalte</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>Columns</source>
            <translation>Spalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>Columns of a table of vertices</source>
            <translation>Spalten einer Punkttabelle</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>Each row makes a triangle with the two before it (a strip)</source>
            <translation>Jede Zeile ergibt mit den zwei davor ein Dreieck (ein Streifen)</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>First values</source>
            <translation>Erste Werte</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>Holds</source>
            <translation>Enthält</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>What each column holds, as its name says. Correct what is not so; tables with the same columns are read the same way from then on.</source>
            <translation>Was jede Spalte enthält, wie ihr Name sagt. Berichtige, was nicht stimmt; Tabellen mit denselben Spalten werden von da an ebenso gelesen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>color alpha</source>
            <translation>Farbe Alpha</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>color blue</source>
            <translation>Farbe Blau</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>color green</source>
            <translation>Farbe Grün</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>color red</source>
            <translation>Farbe Rot</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>normal %1</source>
            <translation>Normale %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>nothing</source>
            <translation>nichts</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>number of the vertex</source>
            <translation>Nummer des Punktes</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>position %1</source>
            <translation>Ort %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>row %L1 has "%2": left out</source>
            <translation>Zeile %L1 hat „%2“: bleibt weg</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>texture %1</source>
            <translation>Textur %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>texture %1, set %2</source>
            <translation>Textur %1, Satz %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/columns_window.cpp" />
            <source>v runs up the texture</source>
            <translation>v läuft auf der Textur nach oben</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source> · in %1</source>
            <translation> · in %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>%1 files in %2 folders</source>
            <translation>%1 Dateien in %2 Ordnern</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>%1 files in one folder</source>
            <translation>%1 Dateien in einem Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>%1 left by other tools (point here)</source>
            <translation>%1 von anderen Werkzeugen hinterlassen (hierher zeigen)</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>%1, %2, %3</source>
            <translation>%1, %2, %3</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>%L1 files · </source>
            <translation>%L1 Dateien · </translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>%L1 hidden, linked or unreadable left out</source>
            <translation>%L1 verborgene, verknüpfte oder unlesbare weggelassen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>%L1 textures · %2</source>
            <translation>%L1 Texturen · %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>1 texture · %1</source>
            <translation>1 Textur · %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>Choose the folder in which the game is installed.</source>
            <translation>Wähle den Ordner, in dem das Spiel installiert ist.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>Found in the game's folder</source>
            <translation>Im Ordner des Spiels gefunden</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>NOT DESCRIBED YET</source>
            <translation>NOCH NICHT BESCHRIEBEN</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>Nothing here can be a source: no archive, no texture, no picture.</source>
            <translation>Hier kann nichts eine Quelle sein: kein Archiv, keine Textur, kein Bild.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>Nothing was looked through</source>
            <translation>Nichts wurde durchgesehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>PROBABLY NOT</source>
            <translation>WOHL NICHT</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>SOURCES · THE UPPER ONE WINS</source>
            <translation>QUELLEN · DIE OBERE GEWINNT</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>Use these %1 sources</source>
            <translation>Diese %1 Quellen nehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>Use these sources</source>
            <translation>Diese Quellen nehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>Use this source</source>
            <translation>Diese Quelle nehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>What can be a source shows here as it is found.</source>
            <translation>Was eine Quelle sein kann, erscheint hier, sobald es gefunden ist.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>What was found; space ticks</source>
            <translation>Was gefunden wurde; die Leertaste kreuzt an</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>archive in parts</source>
            <translation>Archiv in Teilen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>archives are being opened</source>
            <translation>Archive werden geöffnet</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>copy</source>
            <translation>Kopie</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>documents</source>
            <translation>Unterlagen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>in the order of %1</source>
            <translation>in der Reihenfolge von %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>installer</source>
            <translation>Installationsprogramm</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>loose files</source>
            <translation>lose Dateien</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>not ticked</source>
            <translation>nicht angekreuzt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>there is more than can be looked through</source>
            <translation>es ist mehr da, als durchgesehen werden kann</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>ticked</source>
            <translation>angekreuzt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>unknown</source>
            <translation>unbekannt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/found_window.cpp" />
            <source>wants a key; add it with K</source>
            <translation>braucht einen Schlüssel; füge ihn mit K hinzu</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>%1×%2</source>
            <translation>%1×%2</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>%L1 things have it</source>
            <translation>%L1 Dinge haben sie</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>%L1 triangles</source>
            <translation>%L1 Dreiecke</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>A frame record</source>
            <translation>Eine Bildaufnahme</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>As it was on the graphics card</source>
            <translation>Wie sie auf der Grafikkarte war</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>By frame</source>
            <translation>Nach Spielbild</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>By frame: %1</source>
            <translation>Nach Spielbild: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>Cannot be read</source>
            <translation>Nicht lesbar</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>Frame records (frame.jsonl)</source>
            <translation>Bildaufnahmen (frame.jsonl)</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>ITS TEXTURES</source>
            <translation>SEINE TEXTUREN</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>In no archive</source>
            <translation>In keinem Archiv</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>In the archives</source>
            <translation>In den Archiven</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>It has no textures.</source>
            <translation>Es hat keine Texturen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>Looking…</source>
            <translation>Wird gesucht…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>None of its textures is in an archive, so there is nothing to try on.</source>
            <translation>Keine seiner Texturen ist in einem Archiv, also gibt es nichts anzuprobieren.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>Nothing there looks like it.</source>
            <translation>Nichts dort sieht ihr ähnlich.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>Nothing was drawn in this frame.</source>
            <translation>In diesem Bild wurde nichts gezeichnet.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>Point at a thing to light it, click to choose it, or step through all with the arrow keys.</source>
            <translation>Zeige auf ein Ding, dann leuchtet es; ein Klick wählt es; die Pfeiltasten gehen durch alle.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>Record a frame in the game, or choose a record.</source>
            <translation>Nimm im Spiel ein Bild auf oder wähle eine Aufnahme.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>Save the captured texture</source>
            <translation>Die aufgenommene Textur speichern</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>Saved as %1</source>
            <translation>Gespeichert als %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>Save…</source>
            <translation>Speichern…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>Show in the catalog</source>
            <translation>Im Katalog zeigen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>The captured texture, as a file of its own</source>
            <translation>Die aufgenommene Textur als eigene Datei</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>The frame</source>
            <translation>Das Spielbild</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>The record has no picture of the frame.</source>
            <translation>Die Aufnahme hat kein Bild vom Ganzen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>Thing %L1 of %L2</source>
            <translation>Ding %L1 von %L2</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>drawn %L1 times</source>
            <translation>%L1-mal gezeichnet</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>drawn once</source>
            <translation>einmal gezeichnet</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>perhaps: %1 % alike</source>
            <translation>vielleicht: zu %1 % ähnlich</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/frame_window.cpp" />
            <source>surely: %1 % alike</source>
            <translation>sicher: zu %1 % ähnlich</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>%1 textures, %2 of %3</source>
            <translation>%1 Texturen, %2 von %3</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>%1: %2</source>
            <translation>%1: %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>, %1 of them whole</source>
            <translation>, davon %1 ganz</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>1 texture, %1 of %2</source>
            <translation>1 Textur, %1 von %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>By</source>
            <translation>Von</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>Changed blocks only; nothing of the game's own goes in but small pictures of before and after.</source>
            <translation>Nur geänderte Blöcke; vom Spiel selbst kommt nichts hinein als kleine Bilder von vorher und nachher.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>Edited pieces; ticked ones go in</source>
            <translation>Bearbeitete Stücke; angekreuzte kommen hinein</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>Lanterns, relit</source>
            <translation>Laternen, neu beleuchtet</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>License</source>
            <translation>Lizenz</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>Make a parcel</source>
            <translation>Paket machen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>Make the parcel</source>
            <translation>Paket machen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>Notes</source>
            <translation>Anmerkungen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>Nothing is edited yet.</source>
            <translation>Noch ist nichts bearbeitet.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>Nothing is ticked.</source>
            <translation>Nichts ist angekreuzt.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>Parcels (*.parcel)</source>
            <translation>Pakete (*.parcel)</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>Putting it together…</source>
            <translation>Wird zusammengestellt…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>They are wholly my own work: put the whole textures in</source>
            <translation>Sie sind ganz meine eigene Arbeit: die ganzen Texturen hineintun</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>Title</source>
            <translation>Titel</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>Version</source>
            <translation>Version</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>WHAT GOES IN</source>
            <translation>WAS HINEINKOMMT</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/make_parcel_window.cpp" />
            <source>WHAT IT SAYS OF ITSELF</source>
            <translation>WAS ES VON SICH SAGT</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>%1 (stays)</source>
            <translation>%1 (bleibt)</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>%1 bytes into %2. Nothing has been written yet.</source>
            <translation>%1 Byte in %2. Noch ist nichts geschrieben.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>%1 does not fit the game's texture any more</source>
            <translation>%1 passt nicht mehr zur Textur des Spiels</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>%1 stays, %2 gives way</source>
            <translation>%1 bleibt, %2 weicht</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>%L1 textures</source>
            <translation>%L1 Texturen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>%L1 textures of it are not in this game.</source>
            <translation>%L1 Texturen davon sind nicht in diesem Spiel.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>1 texture</source>
            <translation>1 Textur</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>1 texture of it is not in this game.</source>
            <translation>1 Textur davon ist nicht in diesem Spiel.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>After</source>
            <translation>Nachher</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>Before, as the parcel shows it</source>
            <translation>Vorher, wie das Paket es zeigt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>Drop a parcel here, or another mod as a folder or an archive.</source>
            <translation>Ziehe ein Paket hierher, oder eine andere Mod als Ordner oder Archiv.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>IN THE GAME</source>
            <translation>IM SPIEL</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>No parcel changes a texture that you painted.</source>
            <translation>Kein Paket ändert eine Textur, die du gemalt hast.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>No parcel yet</source>
            <translation>Noch kein Paket</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>No picture</source>
            <translation>Kein Bild</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>Parcels</source>
            <translation>Pakete</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>Parcels and archives (*)</source>
            <translation>Pakete und Archive (*)</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>Parcels and your own work, the uppermost first</source>
            <translation>Pakete und deine eigene Arbeit, das oberste zuerst</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>Put a folder in</source>
            <translation>Einen Ordner hineinbringen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>Put a parcel in</source>
            <translation>Ein Paket hineinbringen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>Put it in</source>
            <translation>Hineinbringen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>Reading %1…</source>
            <translation>%1 wird gelesen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>Reading…</source>
            <translation>Wird gelesen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>TEXTURES</source>
            <translation>TEXTUREN</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>Take it out</source>
            <translation>Herausnehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>Textures that a parcel changes, too:</source>
            <translation>Texturen, die auch ein Paket ändert:</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>Textures, and what becomes of each</source>
            <translation>Texturen, und was aus jeder wird</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>The game has these bytes already; nothing will be written.</source>
            <translation>Das Spiel hat diese Bytes schon; nichts wird geschrieben.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>The game is as it stands here.</source>
            <translation>Das Spiel ist, wie es hier steht.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>The game's own</source>
            <translation>Das Eigene des Spiels</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>This one stays</source>
            <translation>Dieses bleibt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>Write it</source>
            <translation>Schreiben</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>Your own work</source>
            <translation>Deine eigene Arbeit</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>a mod of another form: whole textures, nobody knows what it changed</source>
            <translation>eine Mod anderer Form: ganze Texturen, niemand weiß, was sie änderte</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>by %1</source>
            <translation>von %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>for %1</source>
            <translation>für %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>not in yet</source>
            <translation>noch nicht drin</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>painted on your bench</source>
            <translation>auf deiner Werkbank bemalt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>several change it, each in a place of its own</source>
            <translation>mehrere ändern sie, jedes an seiner Stelle</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>the upper one wins</source>
            <translation>das obere gewinnt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/parcels_window.cpp" />
            <source>version %1</source>
            <translation>Version %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/place_strip.h" />
            <source>%L1 bytes at %L2 of %L3</source>
            <translation>%L1 Byte bei %L2 von %L3</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source> (raw lens)</source>
            <translation> (Rohlupe)</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>%1 · neighbors %2 % alike</source>
            <translation>%1 · Nachbarn zu %2 % gleich</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>%1 × %2 texels · bytes %3 to %4 of %5</source>
            <translation>%1 × %2 Texel · Bytes %3 bis %4 von %5</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>(G)</source>
            <translation>(G)</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>(W)</source>
            <translation>(W)</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>16 colors</source>
            <translation>16 Farben</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>256 colors</source>
            <translation>256 Farben</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Begins at</source>
            <translation>Beginnt bei</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Block height</source>
            <translation>Blockhöhe</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Block-linear</source>
            <translation>Blockweise linear</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>F</source>
            <translation>F</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Format</source>
            <translation>Format</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Height</source>
            <translation>Höhe</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>LIKELY</source>
            <translation>WAHRSCHEINLICH</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Looking at bytes</source>
            <translation>Bytes werden angesehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Morton (Z-order)</source>
            <translation>Morton (Z-Ordnung)</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Nothing here looks like rows of a picture.</source>
            <translation>Nichts hier sieht wie die Zeilen eines Bildes aus.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Opening bytes</source>
            <translation>Bytes werden geöffnet</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>P</source>
            <translation>P</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Palette</source>
            <translation>Palette</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Palette at</source>
            <translation>Palette bei</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Raw lens: %1</source>
            <translation>Rohlupe: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Row by row</source>
            <translation>Zeile für Zeile</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Row pitch</source>
            <translation>Zeilenabstand</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>T</source>
            <translation>T</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>TAKEN FOR</source>
            <translation>GEHALTEN FÜR</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>The bytes as a picture</source>
            <translation>Die Bytes als Bild</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Where in the file the picture begins</source>
            <translation>Wo in der Datei das Bild beginnt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Width</source>
            <translation>Breite</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Width %1 · rows %2 % alike</source>
            <translation>Breite %1 · Zeilen zu %2 % gleich</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>Writing the sheet</source>
            <translation>Das Blatt wird geschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>[ ]</source>
            <translation>[ ]</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>all there are</source>
            <translation>alle, die da sind</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>no gap</source>
            <translation>keine Lücke</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>← →</source>
            <translation>← →</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/raw_lens.cpp" />
            <source>↑ ↓</source>
            <translation>↑ ↓</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>%1 entries, %2 of %3 looked at can be read; %4 bytes are not explained</source>
            <translation>%1 Einträge, %2 von %3 angesehenen sind lesbar; %4 Byte sind nicht erklärt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>; all of the file is hidden by a short key, this is what lies inside</source>
            <translation>; die ganze Datei ist mit einem kurzen Schlüssel verdeckt, das liegt darin</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>Drafting a sheet</source>
            <translation>Ein Blatt wird entworfen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>Field</source>
            <translation>Feld</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>Looking for the entry table…</source>
            <translation>Die Eintragstabelle wird gesucht…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>Means</source>
            <translation>Bedeutet</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>Proved: %1.</source>
            <translation>Bewiesen: %1.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>Proving a sheet</source>
            <translation>Ein Blatt wird bewiesen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>Proving on a copy…</source>
            <translation>Wird an einer Kopie bewiesen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>Sheet workshop: %1</source>
            <translation>Blattwerkstatt: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>THE SHEET</source>
            <translation>DAS BLATT</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>The archive: tables dark, entries gray, bytes the sheet does not explain in red</source>
            <translation>Das Archiv: Tabellen dunkel, Einträge grau, vom Blatt nicht erklärte Bytes rot</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>The bytes around the chosen field</source>
            <translation>Die Bytes um das gewählte Feld</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>The header can be read.</source>
            <translation>Der Kopf ist lesbar.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>The sheet's text</source>
            <translation>Der Text des Blatts</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>There is no text yet.</source>
            <translation>Noch kein Text.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>Trying the sheet</source>
            <translation>Das Blatt wird ausprobiert</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>WHAT IT MAKES OF THE ARCHIVE</source>
            <translation>WAS ES AUS DEM ARCHIV MACHT</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>Write a sheet here, or let one be drafted from this archive (Ctrl+D).</source>
            <translation>Schreibe hier ein Blatt, oder lasse eines aus diesem Archiv entwerfen (Strg+D).</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>at %1: %2</source>
            <translation>bei %1: %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>recognized by %1</source>
            <translation>erkannt: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sheet_workshop.cpp" />
            <source>tables %1, entries %2, not explained %3</source>
            <translation>Tabellen %1, Einträge %2, nicht erklärt %3</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>%1 (compared with)</source>
            <translation>%1 (damit verglichen)</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>%1 of %2 sources</source>
            <translation>%1 von %2 Quellen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>%1 was %2</source>
            <translation>%1 war %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>%1: as the game's version %2 has it</source>
            <translation>%1: wie in Version %2 des Spiels</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>%1: the game's new version, or another program</source>
            <translation>%1: die neue Version des Spiels, oder ein anderes Programm</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>%L1 not looked at yet</source>
            <translation>%L1 noch nicht angesehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>An update, or another program's change, will be shown here, each texture as it was and as it is.</source>
            <translation>Ein Update oder die Änderung eines anderen Programms erscheint hier, jede Textur, wie sie war und wie sie ist.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>As it is</source>
            <translation>Wie sie ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>As shipped</source>
            <translation>Wie ausgeliefert</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>COMPARING…</source>
            <translation>WIRD VERGLICHEN…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>EVERYTHING IS AS IN %1</source>
            <translation>ALLES IST WIE IN %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>It was not there</source>
            <translation>Sie war nicht da</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>Its picture is not kept any more</source>
            <translation>Ihr Bild ist nicht mehr aufgehoben</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>NOTHING IS RECORDED YET</source>
            <translation>NOCH IST NICHTS AUFGENOMMEN</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>Name of the version</source>
            <translation>Name der Version</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>OTHER THAN IN %1: %2</source>
            <translation>ANDERS ALS IN %1: %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>RECORDED VERSIONS</source>
            <translation>AUFGENOMMENE VERSIONEN</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>Recorded once, a clean installation tells later what an update, another program or you yourself changed.</source>
            <translation>Einmal aufgenommen, sagt eine saubere Installation später, was ein Update, ein anderes Programm oder du selbst geändert hast.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>Recorded versions of the game</source>
            <translation>Aufgenommene Versionen des Spiels</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>Textures that are other than in this version</source>
            <translation>Texturen, die anders sind als in dieser Version</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>The game has it no more</source>
            <translation>Das Spiel hat sie nicht mehr</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>The installation is clean now? Give the version a name.</source>
            <translation>Ist die Installation jetzt sauber? Gib der Version einen Namen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>Without a name</source>
            <translation>Ohne Namen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>as 1.2, or the day of its update</source>
            <translation>etwa 1.2, oder der Tag des Updates</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>as in %1</source>
            <translation>wie in %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/shipped_window.cpp" />
            <source>as installed now</source>
            <translation>wie jetzt installiert</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>%1   is   %2   (in %3)</source>
            <translation>%1   ist   %2   (in %3)</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>%1 bytes · %2 (%3 %)</source>
            <translation>%1 Byte · %2 (%3 %)</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>%1 stream of %2, unpacked %3; nothing recognizable inside</source>
            <translation>%1-Strom von %2, entpackt %3; nichts Erkennbares darin</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>%1 texture, %2, %3, %4 mips</source>
            <translation>%1-Textur, %2, %3, %4 Mips</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>%L1 TEXTURES</source>
            <translation>%L1 TEXTUREN</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>, %L1 OTHER STREAMS</source>
            <translation>, %L1 ANDERE STRÖME</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>, NOT LOOKED AT EVERYWHERE</source>
            <translation>, NICHT ÜBERALL NACHGESEHEN</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>, ONE OTHER STREAM</source>
            <translation>, EIN ANDERER STROM</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>A texture found here can be replaced by one of the same format, size and mips; inside a stream when the stream packed again fits.</source>
            <translation>Eine hier gefundene Textur kann durch eine von gleichem Format, gleicher Größe und gleichen Mips ersetzt werden; in einem Strom, wenn er neu gepackt hineinpasst.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>End the search; nothing is kept</source>
            <translation>Die Suche beenden; nichts wird aufgehoben</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>Every byte is hidden by the key %1; what is put back is hidden again</source>
            <translation>Jedes Byte ist mit dem Schlüssel %1 verdeckt; was zurückkommt, wird wieder verdeckt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>Found by its pixels: if it looks wrong, the raw lens (R on Sources) shows the bytes in other formats and widths</source>
            <translation>An den Bildpunkten gefunden: sieht es falsch aus, zeigt die Rohlupe (R unter Quellen) die Bytes in anderen Formaten und Breiten</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>Looking for names</source>
            <translation>Namen werden gesucht</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>Looking inside the game's other files for text that names these entries…</source>
            <translation>Die anderen Dateien des Spiels werden nach Text durchsucht, der diese Einträge nennt…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>Looking through the bytes…</source>
            <translation>Die Bytes werden durchgesehen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>NOTHING THAT CAN BE RECOGNIZED IS IN THIS FILE</source>
            <translation>NICHTS ERKENNBARES IN DIESER DATEI</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>Names for hashed entries</source>
            <translation>Namen für Einträge mit Hash</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>Names found</source>
            <translation>Gefundene Namen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>No file of the game names them. Paths you know can be given by a dictionary file beside the sheet.</source>
            <translation>Keine Datei des Spiels nennt sie. Bekannte Pfade kann eine Wörterliste neben dem Blatt geben.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>ONE TEXTURE</source>
            <translation>EINE TEXTUR</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>Sifting</source>
            <translation>Wird durchgesiebt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>Sifting %1</source>
            <translation>%1 wird durchgesiebt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>Stop here</source>
            <translation>Hier aufhören</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>Take these names</source>
            <translation>Diese Namen nehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>Texture without a header, %1, %2, %3</source>
            <translation>Textur ohne Kopf, %1, %2, %3</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>The raw lens shows bare bytes as pixels, and a sheet can be drafted from the file.</source>
            <translation>Die Rohlupe zeigt bloße Bytes als Bildpunkte, und aus der Datei lässt sich ein Blatt entwerfen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>These texts have the hashes that are wanted. A short hash can agree by chance: take off the tick of a name that makes no sense.</source>
            <translation>Diese Texte haben die gesuchten Hashes. Ein kurzer Hash kann zufällig stimmen: nimm das Kreuz bei einem Namen weg, der keinen Sinn ergibt.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>What was found</source>
            <translation>Was gefunden wurde</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>at %1, %2</source>
            <translation>bei %1, %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>certain</source>
            <translation>sicher</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>in the %1 stream at %2</source>
            <translation>im %1-Strom bei %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>likely</source>
            <translation>wahrscheinlich</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>no header</source>
            <translation>kein Kopf</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>no picture</source>
            <translation>kein Bild</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>no smaller mips</source>
            <translation>keine kleineren Mips</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>palette</source>
            <translation>Palette</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>possible</source>
            <translation>möglich</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/sift_window.cpp" />
            <source>very likely</source>
            <translation>sehr wahrscheinlich</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>%1
%2 · %3×%4</source>
            <translation>%1
%2 · %3×%4</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>As proposed for each; here: %1</source>
            <translation>Wie für jede vorgeschlagen; hier: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>As proposed: %1</source>
            <translation>Wie vorgeschlagen: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>Color</source>
            <translation>Farbe</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>Copies of the same picture follow</source>
            <translation>Kopien desselben Bildes folgen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>DDS, as it is</source>
            <translation>DDS, wie sie ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>Each a file of its own</source>
            <translation>Jede als eigene Datei</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>Faces, layers</source>
            <translation>Flächen, Lagen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>Here: %1</source>
            <translation>Hier: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>In one file</source>
            <translation>In einer Datei</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>It stays in the file.</source>
            <translation>Es bleibt in der Datei.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>KTX2, as it is</source>
            <translation>KTX2, wie sie ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>Left out; the game's own comes back</source>
            <translation>Weggelassen; das des Spiels kommt zurück</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>PNG</source>
            <translation>PNG</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>Proposed is %1: %2</source>
            <translation>Vorgeschlagen ist %1: %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>Textures that are taken</source>
            <translation>Texturen, die geholt werden</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>This texture has none.</source>
            <translation>Diese Textur hat keines.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>Whole sets</source>
            <translation>Ganze Sätze</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/take_window.cpp" />
            <source>no alpha</source>
            <translation>kein Alpha</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>%1, as a number</source>
            <translation>%1, als Zahl</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>%1: choose</source>
            <translation>%1: wählen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>A name for them, to use them in every project:</source>
            <translation>Ein Name dafür, um sie in jedem Projekt zu benutzen:</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>Add</source>
            <translation>Hinzufügen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>Add a touch-up above: it is made on the picture at once, and can be changed or removed later.</source>
            <translation>Füge oben eine Retusche hinzu: sie zeigt sich sogleich am Bild und lässt sich später ändern oder entfernen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>Before</source>
            <translation>Vorher</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>Color of the mask</source>
            <translation>Farbe der Maske</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>How near</source>
            <translation>Wie nah</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>Keep for %L1 pieces</source>
            <translation>Für %L1 Stücke behalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>Keep these as…</source>
            <translation>Diese behalten als…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>Keep these touch-ups</source>
            <translation>Diese Retuschen behalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>Nothing is changed yet</source>
            <translation>Noch ist nichts geändert</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>Picture</source>
            <translation>Bild</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>Picture of the mask</source>
            <translation>Bild der Maske</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>TOUCH-UPS, IN ORDER</source>
            <translation>RETUSCHEN, DER REIHE NACH</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>The file in the work folder stays as it is; touch-ups are made on what it holds.</source>
            <translation>Die Datei im Arbeitsordner bleibt, wie sie ist; retuschiert wird, was sie enthält.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>Touch up %1</source>
            <translation>%1 retuschieren</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>Touch-ups, in order</source>
            <translation>Retuschen, der Reihe nach</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>What is chosen here is made behind the touch-ups that the %1 pieces have.</source>
            <translation>Was hier gewählt ist, folgt auf die Retuschen, die die %1 Stücke haben.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>Where</source>
            <translation>Wo</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>With the touch-ups</source>
            <translation>Mit den Retuschen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>everywhere</source>
            <translation>überall</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>near a color</source>
            <translation>nahe einer Farbe</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>the other way round</source>
            <translation>andersherum</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>where a picture is bright</source>
            <translation>wo ein Bild hell ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>where alpha is high</source>
            <translation>wo Alpha hoch ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>where blue is high</source>
            <translation>wo Blau hoch ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>where green is high</source>
            <translation>wo Grün hoch ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>where it is bright</source>
            <translation>wo es hell ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/touch_window.cpp" />
            <source>where red is high</source>
            <translation>wo Rot hoch ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/try_on_window.cpp" />
            <source>%1 on its object</source>
            <translation>%1 auf ihrem Ding</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/update_window.cpp" />
            <source>%1: of %L2 textures %L3 do not fit any more</source>
            <translation>%1: von %L2 Texturen passen %L3 nicht mehr</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/update_window.cpp" />
            <source>Everything is in the game as you delivered it.</source>
            <translation>Alles ist im Spiel, wie du es geliefert hast.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/update_window.cpp" />
            <source>Nothing, before you decide</source>
            <translation>Nichts, bevor du entscheidest</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/update_window.cpp" />
            <source>Put %1 in again</source>
            <translation>%1 wieder hineinbringen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/update_window.cpp" />
            <source>Put the parcels in again</source>
            <translation>Die Pakete wieder hineinbringen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/update_window.cpp" />
            <source>The game has it no more. Your file stays as it is.</source>
            <translation>Das Spiel hat sie nicht mehr. Deine Datei bleibt, wie sie ist.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/update_window.cpp" />
            <source>The game has its own texture again; yours goes in as it was.</source>
            <translation>Das Spiel hat wieder seine eigene Textur; deine kommt hinein, wie sie war.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/update_window.cpp" />
            <source>The game has the same picture compressed anew; your change is brought to it.</source>
            <translation>Das Spiel hat dasselbe Bild neu gepackt; deine Änderung wird darauf übertragen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/update_window.cpp" />
            <source>The game has the same texture under another path; yours goes in there.</source>
            <translation>Das Spiel hat dieselbe Textur unter einem anderen Pfad; deine kommt dort hinein.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/update_window.cpp" />
            <source>The game's new texture differs where you painted. Your file stays as it is; take the new one on the bench, or let yours go over it.</source>
            <translation>Die neue Textur des Spiels ist anders, wo du gemalt hast. Deine Datei bleibt, wie sie ist; nimm die neue auf die Werkbank, oder lege deine darüber.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/update_window.cpp" />
            <source>The game's new texture differs, but not where you painted: both are kept.</source>
            <translation>Die neue Textur des Spiels ist anders, aber nicht, wo du gemalt hast: beides bleibt.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/update_window.cpp" />
            <source>The game's now</source>
            <translation>Jetzt im Spiel</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/update_window.cpp" />
            <source>What would go in</source>
            <translation>Was hineinkäme</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/update_window.cpp" />
            <source>Your pieces, and what became of them</source>
            <translation>Deine Stücke, und was aus ihnen wurde</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/update_window.cpp" />
            <source>yours goes over it</source>
            <translation>deine kommt darüber</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/versions_window.cpp" />
            <source> · %1 bytes</source>
            <translation> · %1 Byte</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/versions_window.cpp" />
            <source> · in the work folder</source>
            <translation> · im Arbeitsordner</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/versions_window.cpp" />
            <source>%1
%2%3</source>
            <translation>%1
%2%3</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/versions_window.cpp" />
            <source>All versions of the project: %1 bytes</source>
            <translation>Alle Fassungen des Projekts: %1 Byte</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/versions_window.cpp" />
            <source>Clear versions</source>
            <translation>Fassungen löschen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/versions_window.cpp" />
            <source>Delete them</source>
            <translation>Löschen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/versions_window.cpp" />
            <source>Delete what is kept of earlier saves of all pieces? What lies in the work folder stays.</source>
            <translation>Soll gelöscht werden, was von früherem Speichern aller Stücke aufgehoben ist? Was im Arbeitsordner liegt, bleibt.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/versions_window.cpp" />
            <source>In the work folder now</source>
            <translation>Jetzt im Arbeitsordner</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/versions_window.cpp" />
            <source>Keep them</source>
            <translation>Behalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/versions_window.cpp" />
            <source>Nothing was brought back yet. Edit the file and save it.</source>
            <translation>Noch kam nichts zurück. Bearbeite die Datei und speichere sie.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/versions_window.cpp" />
            <source>That version</source>
            <translation>Diese Fassung</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/versions_window.cpp" />
            <source>Versions of %1</source>
            <translation>Fassungen von %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/versions_window.cpp" />
            <source>Versions, the newest first</source>
            <translation>Fassungen, die neueste zuerst</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>A byte back</source>
            <translation>Ein Byte zurück</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>A byte on</source>
            <translation>Ein Byte weiter</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>A folder…</source>
            <translation>Ein Ordner…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>A parcel, or an archive whose paths mirror the game's</source>
            <translation>Ein Paket, oder ein Archiv mit denselben Pfaden wie im Spiel</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>A picture back</source>
            <translation>Ein Bild zurück</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>A picture on</source>
            <translation>Ein Bild weiter</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>A row back</source>
            <translation>Eine Zeile zurück</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>A row on</source>
            <translation>Eine Zeile weiter</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>A texture sheet that opens this file as it is seen now</source>
            <translation>Ein Texturblatt, das diese Datei so öffnet, wie sie jetzt zu sehen ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Add a touch-up</source>
            <translation>Retusche hinzufügen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>After an update</source>
            <translation>Nach einem Update</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Another folder…</source>
            <translation>Anderer Ordner…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Another mod, as a folder whose paths mirror the game's</source>
            <translation>Eine andere Mod, als Ordner mit denselben Pfaden wie im Spiel</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Another record…</source>
            <translation>Andere Aufnahme…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Back</source>
            <translation>Zurück</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Bring in</source>
            <translation>Hereinholen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Choose what is made next</source>
            <translation>Wähle, was als Nächstes geschieht</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Clear…</source>
            <translation>Löschen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Compare with it</source>
            <translation>Damit vergleichen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Delete the kept versions of all pieces but what lies in the work folder</source>
            <translation>Die aufgehobenen Fassungen aller Stücke löschen, außer was im Arbeitsordner liegt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Draft from this archive</source>
            <translation>Aus diesem Archiv entwerfen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Flip</source>
            <translation>Blättern</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Forget it</source>
            <translation>Vergessen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Go back to this</source>
            <translation>Zu dieser zurückgehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Go through the folder of another installation</source>
            <translation>Den Ordner einer anderen Installation durchsehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Half as wide</source>
            <translation>Halb so breit</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Higher</source>
            <translation>Höher</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>In this project; its archives are opened with it at once</source>
            <translation>In diesem Projekt; seine Archive werden sogleich damit geöffnet</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>It wins over more</source>
            <translation>Es gewinnt über mehr</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Keep as a sheet</source>
            <translation>Als Blatt aufheben</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Keep the sheet</source>
            <translation>Blatt aufheben</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Keep these touch-ups under a name, or use some that were kept</source>
            <translation>Diese Retuschen unter einem Namen behalten, oder behaltene benutzen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Larger pitch</source>
            <translation>Größerer Zeilenabstand</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Leave it out</source>
            <translation>Weglassen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Leave the sources as they are</source>
            <translation>Die Quellen lassen, wie sie sind</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Let yours go over it</source>
            <translation>Deine darüberlegen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Lists</source>
            <translation>Listen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Look for the entry table and write a sheet that reads it; replaces the text</source>
            <translation>Die Eintragstabelle suchen und ein Blatt schreiben, das sie liest; ersetzt den Text</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Lower</source>
            <translation>Tiefer</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Make it after the one below</source>
            <translation>Nach der unteren ausführen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Make it before the one above</source>
            <translation>Vor der oberen ausführen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Make the parcel…</source>
            <translation>Paket machen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Make what is ticked the project's sources, in this order</source>
            <translation>Das Angekreuzte zu den Quellen des Projekts machen, in dieser Reihenfolge</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>More wins over it</source>
            <translation>Mehr gewinnt über es</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Narrower</source>
            <translation>Schmaler</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Next</source>
            <translation>Nächstes</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Next block height</source>
            <translation>Nächste Blockhöhe</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Next format</source>
            <translation>Nächstes Format</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Next order</source>
            <translation>Nächste Anordnung</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Next palette</source>
            <translation>Nächste Palette</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Nothing is written</source>
            <translation>Nichts wird geschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>On a copy: change entries, make them longer, put them back, and read everything after each step</source>
            <translation>An einer Kopie: Einträge ändern, verlängern, zurücklegen, und nach jedem Schritt alles lesen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>On its mesh</source>
            <translation>Auf seinem Netz</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Open the record of another frame</source>
            <translation>Die Aufnahme eines anderen Bildes öffnen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Previous</source>
            <translation>Voriges</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Previous format</source>
            <translation>Voriges Format</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Prove writing</source>
            <translation>Schreiben beweisen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Put in again</source>
            <translation>Wieder hineinbringen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Put one in…</source>
            <translation>Eines hineinbringen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Raw lens</source>
            <translation>Rohlupe</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Record as shipped</source>
            <translation>Als ausgeliefert aufnehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Remember the installation as it is, so that later changes can be told</source>
            <translation>Die Installation merken, wie sie ist, damit spätere Änderungen zu erkennen sind</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>See the texture on what was drawn</source>
            <translation>Die Textur auf dem sehen, was gezeichnet wurde</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Sheet workshop</source>
            <translation>Blattwerkstatt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Smaller pitch</source>
            <translation>Kleinerer Zeilenabstand</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Take out</source>
            <translation>Herausnehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Take the file for what sifting finds in it: its textures come into the catalog</source>
            <translation>Die Datei für das nehmen, was das Sieben darin findet: ihre Texturen kommen in den Katalog</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Take the likeliest format</source>
            <translation>Das wahrscheinlichste Format nehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Take the likeliest width</source>
            <translation>Die wahrscheinlichste Breite nehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>The game is then what the others alone make of it</source>
            <translation>Das Spiel ist dann, was die anderen allein daraus machen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>The game's files stay as they are</source>
            <translation>Die Dateien des Spiels bleiben, wie sie sind</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>The game's, yours, what the game will get</source>
            <translation>Die des Spiels, deine, was das Spiel bekommt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>The pieces get these touch-ups; they can be changed at any time</source>
            <translation>Die Stücke bekommen diese Retuschen; sie lassen sich jederzeit ändern</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>The thing that was drawn before</source>
            <translation>Das Ding, das davor gezeichnet wurde</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>The thing that was drawn next</source>
            <translation>Das Ding, das danach gezeichnet wurde</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>The ticked pictures become the edits of their textures; the folder stays as it is</source>
            <translation>Die angekreuzten Bilder werden zu Bearbeitungen ihrer Texturen; der Ordner bleibt, wie er ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Touch-ups</source>
            <translation>Retuschen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Twice as wide</source>
            <translation>Doppelt so breit</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Use what was found</source>
            <translation>Das Gefundene nehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>What is other than in this version is told</source>
            <translation>Was anders ist als in dieser Version, wird gesagt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Where the mesh lies on the texture</source>
            <translation>Wo das Netz auf der Textur liegt</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Wider</source>
            <translation>Breiter</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Write the ticked ones into the game, in one delivery</source>
            <translation>Die angekreuzten ins Spiel schreiben, in einer Lieferung</translation>
        </message>
        <message>
            <location filename="../../../src/app/workshop/workshop_actions.cpp" />
            <source>Write this version into the work folder; what is there now stays in the list</source>
            <translation>Diese Fassung in den Arbeitsordner schreiben; was jetzt dort liegt, bleibt in der Liste</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>%1, in %2</source>
            <translation>%1, in %2</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>%1: done</source>
            <translation>%1: fertig</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>%1: not done</source>
            <translation>%1: nicht geschehen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>A folder with pictures</source>
            <translation>Ein Ordner mit Bildern</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>All games</source>
            <translation>Alle Spiele</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>All that is being done: how far, how fast, how long; halt it or end it</source>
            <translation>Alles, was in Arbeit ist: wie weit, wie schnell, wie lange; anhalten oder beenden</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Close other programs, or do it in smaller parts</source>
            <translation>Schließe andere Programme oder tue es in kleineren Teilen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Copy what went wrong, for a question or a report</source>
            <translation>Kopieren, was schiefging, für eine Frage oder einen Bericht</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Everything is kept as you work</source>
            <translation>Alles wird beim Arbeiten aufgehoben</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Everything is kept as you work; there is nothing to save.</source>
            <translation>Alles wird beim Arbeiten aufgehoben; es gibt nichts zu speichern.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Find a command by its name</source>
            <translation>Einen Befehl nach seinem Namen finden</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Find…</source>
            <translation>Suchen…</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Go to %1</source>
            <translation>Zu %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Got it</source>
            <translation>Verstanden</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Halted: %1</source>
            <translation>Angehalten: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>It is here in passing, and goes when it is closed</source>
            <translation>Es ist nur vorübergehend hier und geht, wenn es geschlossen wird</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Keep this project</source>
            <translation>Dieses Projekt behalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Leave this project for another one</source>
            <translation>Dieses Projekt für ein anderes verlassen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Make the change again that was taken back</source>
            <translation>Die zurückgenommene Änderung wieder machen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Nothing running</source>
            <translation>Nichts läuft</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Nothing was changed, and nothing is kept until a project is open.</source>
            <translation>Nichts wurde geändert, und nichts wird aufgehoben, bis ein Projekt offen ist.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Redo</source>
            <translation>Wiederholen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Redo: %1</source>
            <translation>Wiederholen: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Running</source>
            <translation>In Arbeit</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Save</source>
            <translation>Speichern</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Start the game as it is now</source>
            <translation>Das Spiel starten, wie es jetzt ist</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Stop looking through the archives</source>
            <translation>Das Durchsehen der Archive anhalten</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Take the last change of the project back; deliveries are undone in Delivery</source>
            <translation>Die letzte Änderung des Projekts zurücknehmen; Lieferungen werden in Lieferung zurückgenommen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>The project cannot be opened</source>
            <translation>Das Projekt kann nicht geöffnet werden</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>The project stays, and is among your games from now on.</source>
            <translation>Das Projekt bleibt und gehört von jetzt an zu deinen Spielen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>There is a copy of it as it was when it was last opened. The file that cannot be read is kept beside it.</source>
            <translation>Es gibt eine Kopie davon, wie es beim letzten Öffnen war. Die Datei, die nicht zu lesen ist, bleibt daneben liegen.</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>There is not enough memory for this</source>
            <translation>Dafür ist nicht genug Speicher da</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>To all games</source>
            <translation>Zu allen Spielen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Undo: %1</source>
            <translation>Rückgängig: %1</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>Use the last good copy</source>
            <translation>Die letzte gute Kopie nehmen</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>What was done, and what went wrong</source>
            <translation>Was getan wurde, und was schiefging</translation>
        </message>
        <message>
            <location filename="../../../src/app/workspace.cpp" />
            <source>in passing</source>
            <translation>vorübergehend</translation>
        </message>
        <message>
            <location filename="../../../src/base/bytes.cpp" />
            <source>needs {} bytes, has {}</source>
            <translation>braucht {} Byte, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/bytes.cpp" />
            <source>points to byte {}, past the end</source>
            <translation>zeigt auf Byte {}, hinter das Ende</translation>
        </message>
        <message>
            <location filename="../../../src/base/child_program.cpp" />
            <source>cannot make a pipe</source>
            <translation>eine Röhre lässt sich nicht anlegen</translation>
        </message>
        <message>
            <location filename="../../../src/base/child_program.cpp" />
            <source>cannot start {}</source>
            <translation>{} lässt sich nicht starten</translation>
        </message>
        <message>
            <location filename="../../../src/base/child_program.cpp" />
            <source>cannot wait for a program</source>
            <translation>auf ein Programm kann nicht gewartet werden</translation>
        </message>
        <message>
            <location filename="../../../src/base/cipher.cpp" />
            <source>AES failed</source>
            <translation>AES ist gescheitert</translation>
        </message>
        <message>
            <location filename="../../../src/base/cipher.cpp" />
            <source>an AES IV has 16 bytes, this one has {}</source>
            <translation>ein AES-IV hat 16 Byte, dieser hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/cipher.cpp" />
            <source>an AES key has 16, 24 or 32 bytes, this one has {}</source>
            <translation>ein AES-Schlüssel hat 16, 24 oder 32 Byte, dieser hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/cipher.cpp" />
            <source>the AES engine could not be started</source>
            <translation>die AES-Maschine ließ sich nicht starten</translation>
        </message>
        <message>
            <location filename="../../../src/base/cipher.cpp" />
            <source>{} bytes are no whole number of AES blocks</source>
            <translation>{} Byte sind keine ganze Zahl von AES-Blöcken</translation>
        </message>
        <message>
            <location filename="../../../src/base/deflate.cpp" />
            <source>The size field is damaged</source>
            <translation>Das Größenfeld ist beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/base/deflate.cpp" />
            <source>claims {} bytes from {} packed, more than deflate can give</source>
            <translation>behauptet {} Byte aus {} gepackten, mehr als Deflate geben kann</translation>
        </message>
        <message>
            <location filename="../../../src/base/deflate.cpp" />
            <source>out of memory</source>
            <translation>kein Speicher mehr</translation>
        </message>
        <message>
            <location filename="../../../src/base/deflate.cpp" />
            <source>the deflate stream is damaged</source>
            <translation>der Deflate-Strom ist beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/base/deflate.cpp" />
            <source>unpacks to more than the stated {} bytes</source>
            <translation>entpackt sich zu mehr als den angegebenen {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/base/deflate.cpp" />
            <source>unpacks to {} bytes, the directory says {}</source>
            <translation>entpackt sich zu {} Byte, das Verzeichnis sagt {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/deflate.cpp" />
            <source>would unpack to {}, more than the limit of {}</source>
            <translation>würde sich zu {} entpacken, mehr als die Grenze von {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_lock.cpp" />
            <source>Close that program and try again</source>
            <translation>Schließe das Programm und versuche es noch einmal</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_lock.cpp" />
            <source>cannot lock {}</source>
            <translation>{} kann nicht gesperrt werden</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_lock.cpp" />
            <source>cannot open {}</source>
            <translation>{} kann nicht geöffnet werden</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_lock.cpp" />
            <source>{} is in use by another program</source>
            <translation>{} wird von einem anderen Programm benutzt</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_view.cpp" />
            <source>Join them into one file first</source>
            <translation>Füge sie erst zu einer Datei zusammen</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_view.cpp" />
            <source>Open it again</source>
            <translation>Öffne es neu</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_view.cpp" />
            <source>bytes behind the end of the file</source>
            <translation>Bytes hinter dem Ende der Datei</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_view.cpp" />
            <source>cannot look at {}</source>
            <translation>{} kann nicht angesehen werden</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_view.cpp" />
            <source>cannot map {}</source>
            <translation>{} kann nicht eingeblendet werden</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_view.cpp" />
            <source>cannot read {}</source>
            <translation>{} kann nicht gelesen werden</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_view.cpp" />
            <source>no parts to join</source>
            <translation>keine Teile zum Zusammenfügen</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_view.cpp" />
            <source>{} became shorter while it was open</source>
            <translation>{} wurde kürzer, während es offen war</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_view.cpp" />
            <source>{} could not be read: it changed while it was open, or the disk failed</source>
            <translation>{} ließ sich nicht lesen: die Datei änderte sich, während sie offen war, oder die Platte versagt</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_view.cpp" />
            <source>{} is not a regular file</source>
            <translation>{} ist keine gewöhnliche Datei</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_view.cpp" />
            <source>{}: its parts of {} do not end at whole pages and are too large for memory</source>
            <translation>{}: seine Teile von {} enden nicht an ganzen Seiten und sind zu groß für den Speicher</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_write.cpp" />
            <source>Choose another name</source>
            <translation>Wähle einen anderen Namen</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_write.cpp" />
            <source>Remove the link or choose another folder</source>
            <translation>Entferne die Verknüpfung oder wähle einen anderen Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_write.cpp" />
            <source>Remove the link or choose another name</source>
            <translation>Entferne die Verknüpfung oder wähle einen anderen Namen</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_write.cpp" />
            <source>cannot make the folder {}</source>
            <translation>der Ordner {} kann nicht angelegt werden</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_write.cpp" />
            <source>cannot write {}</source>
            <translation>{} kann nicht geschrieben werden</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_write.cpp" />
            <source>{} is a link that leads nowhere</source>
            <translation>{} ist eine Verknüpfung, die nirgendwohin führt</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_write.cpp" />
            <source>{} is there already</source>
            <translation>{} ist schon da</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_write.cpp" />
            <source>{} is there already and is no regular file</source>
            <translation>{} ist schon da und keine gewöhnliche Datei</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_write.cpp" />
            <source>{} is {}, more than the limit of {}</source>
            <translation>{} ist {} groß, mehr als die Grenze von {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/file_write.cpp" />
            <source>{} leads out of {} through a link</source>
            <translation>{} führt über eine Verknüpfung aus {} hinaus</translation>
        </message>
        <message>
            <location filename="../../../src/base/keys.cpp" />
            <source>Each line is NAME=HEX</source>
            <translation>Jede Zeile ist NAME=HEX</translation>
        </message>
        <message>
            <location filename="../../../src/base/keys.cpp" />
            <source>Write NAME=text:WORDS for a password, NAME=@FILE for a file</source>
            <translation>Schreibe NAME=text:WÖRTER für ein Passwort, NAME=@DATEI für eine Datei</translation>
        </message>
        <message>
            <location filename="../../../src/base/keys.cpp" />
            <source>a key is written NAME=HEX, NAME=text:WORDS or NAME=@FILE</source>
            <translation>ein Schlüssel wird als NAME=HEX, NAME=text:WÖRTER oder NAME=@DATEI geschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/base/keys.cpp" />
            <source>a key's name cannot hold control characters</source>
            <translation>der Name eines Schlüssels kann keine Steuerzeichen haben</translation>
        </message>
        <message>
            <location filename="../../../src/base/keys.cpp" />
            <source>line {}</source>
            <translation>Zeile {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/keys.cpp" />
            <source>no key is written here</source>
            <translation>hier steht kein Schlüssel</translation>
        </message>
        <message>
            <location filename="../../../src/base/keys.cpp" />
            <source>the key "{}" is empty</source>
            <translation>der Schlüssel „{}“ ist leer</translation>
        </message>
        <message>
            <location filename="../../../src/base/keys.cpp" />
            <source>the key "{}" is not written in pairs of hexadecimal digits</source>
            <translation>der Schlüssel „{}“ ist nicht in Paaren hexadezimaler Ziffern geschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/base/lzss.cpp" />
            <source>a pair has 1 to 4 bytes</source>
            <translation>ein Paar hat 1 bis 4 Byte</translation>
        </message>
        <message>
            <location filename="../../../src/base/lzss.cpp" />
            <source>bits of a pair are used twice</source>
            <translation>Bits eines Paars werden zweimal benutzt</translation>
        </message>
        <message>
            <location filename="../../../src/base/lzss.cpp" />
            <source>bits {} to {} of a pair of {} bytes</source>
            <translation>Bits {} bis {} eines Paars von {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/base/lzss.cpp" />
            <source>claims {} bytes from {} packed, more than they can give or the limit</source>
            <translation>behauptet {} Byte aus {} gepackten, mehr als sie geben können oder erlaubt ist</translation>
        </message>
        <message>
            <location filename="../../../src/base/lzss.cpp" />
            <source>length has 1 to 16 bits</source>
            <translation>length hat 1 bis 16 Bit</translation>
        </message>
        <message>
            <location filename="../../../src/base/lzss.cpp" />
            <source>place has {} bits, a window of {} needs {}</source>
            <translation>die Stelle hat {} Bit, ein Fenster von {} braucht {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/lzss.cpp" />
            <source>shortest is 1 to 255</source>
            <translation>shortest ist 1 bis 255</translation>
        </message>
        <message>
            <location filename="../../../src/base/lzss.cpp" />
            <source>start lies in the window</source>
            <translation>start liegt im Fenster</translation>
        </message>
        <message>
            <location filename="../../../src/base/lzss.cpp" />
            <source>unpacks to more than the limit of {}</source>
            <translation>entpackt sich zu mehr als der Grenze von {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/lzss.cpp" />
            <source>unpacks to {} bytes, should be {}</source>
            <translation>entpackt sich zu {} Byte, sollten {} sein</translation>
        </message>
        <message>
            <location filename="../../../src/base/lzss.cpp" />
            <source>window is a power of two, 16 to 1048576</source>
            <translation>window ist eine Zweierpotenz, 16 bis 1048576</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source> and </source>
            <translation> und </translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>Brotli could not pack the data</source>
            <translation>Brotli konnte die Daten nicht packen</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>LZ4 could not pack the data</source>
            <translation>LZ4 konnte die Daten nicht packen</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>LZO could not pack the data</source>
            <translation>LZO konnte die Daten nicht packen</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>Snappy could not pack the data</source>
            <translation>Snappy konnte die Daten nicht packen</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>The stream is damaged or made to fill memory</source>
            <translation>Der Strom ist beschädigt oder dazu gemacht, den Speicher zu füllen</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>an LZ4 block of more than 2 GB</source>
            <translation>ein LZ4-Block von mehr als 2 GB</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>bzip2 could not pack the data</source>
            <translation>bzip2 konnte die Daten nicht packen</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>claims {} bytes from {} packed, more than LZ4 can give</source>
            <translation>behauptet {} Byte aus {} gepackten, mehr als LZ4 geben kann</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>claims {} bytes from {} packed, more than LZO can give</source>
            <translation>behauptet {} Byte aus {} gepackten, mehr als LZO geben kann</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>claims {}, more than it can hold or the limit</source>
            <translation>behauptet {}, mehr als es fassen kann oder erlaubt ist</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>liblzma could not pack the data</source>
            <translation>liblzma konnte die Daten nicht packen</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>liblzma refuses the level</source>
            <translation>liblzma lehnt die Stufe ab</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>liblzma refuses the settings</source>
            <translation>liblzma lehnt die Einstellungen ab</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>lz4: {}</source>
            <translation>lz4: {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>more than 2 GB for one LZ4 block</source>
            <translation>mehr als 2 GB für einen LZ4-Block</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>more than 3 GB for one bzip2 stream</source>
            <translation>mehr als 3 GB für einen bzip2-Strom</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>no such packing</source>
            <translation>keine solche Packung</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>stored, but {} bytes became {}</source>
            <translation>ungepackt abgelegt, aber aus {} Byte wurden {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>the lz4 block is damaged</source>
            <translation>der LZ4-Block ist beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>the lz4 block unpacks to {} bytes, should be {}</source>
            <translation>der LZ4-Block entpackt sich zu {} Byte, sollten {} sein</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>the lzo1x block is damaged</source>
            <translation>der lzo1x-Block ist beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>zstd: {}</source>
            <translation>zstd: {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>{} are more than the limit</source>
            <translation>{} sind mehr als erlaubt</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>{} does not say where it ends</source>
            <translation>{} sagt nicht, wo es endet</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack.cpp" />
            <source>{} needs its unpacked size</source>
            <translation>{} braucht seine entpackte Größe</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack_decoders.cpp" />
            <source>the {} stream ends early</source>
            <translation>der {}-Strom endet zu früh</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack_decoders.cpp" />
            <source>the {} stream is damaged</source>
            <translation>der {}-Strom ist beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/base/pack_decoders.cpp" />
            <source>the {} stream wants more memory than the limit</source>
            <translation>der {}-Strom verlangt mehr Speicher als erlaubt</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>Give its path in the project's settings</source>
            <translation>Gib seinen Pfad in den Einstellungen des Projekts an</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>Install the package bubblewrap</source>
            <translation>Installiere das Paket bubblewrap</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>Name one in the project's settings</source>
            <translation>Nenne eines in den Einstellungen des Projekts</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>The data is not what it takes, or its command in the project's settings is wrong</source>
            <translation>Die Daten sind nicht, was es annimmt, oder sein Befehl in den Einstellungen des Projekts ist falsch</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>The data is not what it takes, or its size is another</source>
            <translation>Die Daten sind nicht, was es annimmt, oder ihre Größe ist eine andere</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>The program hangs, or the data is not what it takes</source>
            <translation>Das Programm hängt, oder die Daten sind nicht, was es annimmt</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>bubblewrap is not installed, and packer programs run only inside it</source>
            <translation>bubblewrap ist nicht installiert, und Packer laufen nur darin</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>did not end within {} s</source>
            <translation>endete nicht innerhalb von {} s</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>ended with {}</source>
            <translation>endete mit {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>gives more than {} bytes</source>
            <translation>gibt mehr als {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>packer {}</source>
            <translation>Packer {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>packer {}: has no command for packing, so its entries can only be read</source>
            <translation>Packer {}: hat keinen Befehl zum Packen, also lassen sich seine Einträge nur lesen</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>packer {}: unpacks to {} bytes, should be {}</source>
            <translation>Packer {}: entpackt zu {} Byte, sollten {} sein</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>the command has a {} without its end</source>
            <translation>der Befehl hat ein {} ohne Ende</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>the command names no program</source>
            <translation>der Befehl nennt kein Programm</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>the program {}{}{}</source>
            <translation>das Programm {}{}{}</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>there is no program {}</source>
            <translation>es gibt kein Programm {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>was ended</source>
            <translation>wurde beendet</translation>
        </message>
        <message>
            <location filename="../../../src/base/packer_program.cpp" />
            <source>would unpack to {}, more than the limit</source>
            <translation>würde sich zu {} entpacken, mehr als die Grenze</translation>
        </message>
        <message>
            <location filename="../../../src/base/result.cpp" />
            <source> (at byte {})</source>
            <translation> (bei Byte {})</translation>
        </message>
        <message>
            <location filename="../../../src/base/result.cpp" />
            <source>Check who owns the file and whether the disk is read-only</source>
            <translation>Prüfe, wem die Datei gehört und ob der Datenträger schreibgeschützt ist</translation>
        </message>
        <message>
            <location filename="../../../src/base/result.cpp" />
            <source>Free some space and try again; nothing was changed</source>
            <translation>Schaffe Platz und versuche es noch einmal; nichts wurde geändert</translation>
        </message>
        <message>
            <location filename="../../../src/base/runs.cpp" />
            <source>"itself" goes with elements of one byte</source>
            <translation>„itself“ geht nur mit Elementen von einem Byte</translation>
        </message>
        <message>
            <location filename="../../../src/base/runs.cpp" />
            <source>a range goes from 0 to 255</source>
            <translation>ein Bereich geht von 0 bis 255</translation>
        </message>
        <message>
            <location filename="../../../src/base/runs.cpp" />
            <source>counts of the range from {} go below 0</source>
            <translation>Anzahlen des Bereichs ab {} gehen unter 0</translation>
        </message>
        <message>
            <location filename="../../../src/base/runs.cpp" />
            <source>no range can say one single element</source>
            <translation>kein Bereich kann ein einzelnes Element sagen</translation>
        </message>
        <message>
            <location filename="../../../src/base/runs.cpp" />
            <source>no range can say the byte {}</source>
            <translation>kein Bereich kann das Byte {} sagen</translation>
        </message>
        <message>
            <location filename="../../../src/base/runs.cpp" />
            <source>no range holds the control byte {}</source>
            <translation>kein Bereich enthält das Steuerbyte {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/runs.cpp" />
            <source>ranges are a list of { from, to, does, count }</source>
            <translation>ranges ist eine Liste von { from, to, does, count }</translation>
        </message>
        <message>
            <location filename="../../../src/base/runs.cpp" />
            <source>the run needs {} bytes, has {}</source>
            <translation>der Lauf braucht {} Byte, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/runs.cpp" />
            <source>two ranges hold {}</source>
            <translation>zwei Bereiche enthalten {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/runs.cpp" />
            <source>unit is 1 to 16 bytes</source>
            <translation>unit ist 1 bis 16 Byte</translation>
        </message>
        <message>
            <location filename="../../../src/base/runs.cpp" />
            <source>{} bytes are no whole number of elements of {}</source>
            <translation>{} Byte sind keine ganze Zahl von Elementen zu {}</translation>
        </message>
        <message>
            <location filename="../../../src/base/shard.cpp" />
            <source>"{}" is no part of a whole</source>
            <translation>„{}“ ist kein Teil eines Ganzen</translation>
        </message>
        <message>
            <location filename="../../../src/base/shard.cpp" />
            <source>Write K/N, from 1/N to N/N, with N of at most 10,000</source>
            <translation>Schreibe K/N, von 1/N bis N/N, mit N höchstens 10.000</translation>
        </message>
        <message>
            <location filename="../../../src/bench/alpha_way.cpp" />
            <source>Save both in the same size</source>
            <translation>Speichere beide in derselben Größe</translation>
        </message>
        <message>
            <location filename="../../../src/bench/alpha_way.cpp" />
            <source>alpha is {}×{}, the picture {}×{}</source>
            <translation>Alpha ist {}×{}, das Bild {}×{}</translation>
        </message>
        <message>
            <location filename="../../../src/bench/alpha_way.cpp" />
            <source>alpha stays where it is in {} as {}</source>
            <translation>Alpha bleibt, wo es ist, in {} als {}</translation>
        </message>
        <message>
            <location filename="../../../src/bench/bulk_export.cpp" />
            <source>Choose a folder outside the game's</source>
            <translation>Wähle einen Ordner außerhalb des Spiels</translation>
        </message>
        <message>
            <location filename="../../../src/bench/bulk_export.cpp" />
            <source>Choose another folder</source>
            <translation>Wähle einen anderen Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/bench/bulk_export.cpp" />
            <source>Choose another folder, or export less</source>
            <translation>Wähle einen anderen Ordner, oder exportiere weniger</translation>
        </message>
        <message>
            <location filename="../../../src/bench/bulk_export.cpp" />
            <source>Move it away, export elsewhere, or say that it may go (--force)</source>
            <translation>Schiebe sie weg, exportiere anderswohin, oder sage, dass sie gehen darf (--force)</translation>
        </message>
        <message>
            <location filename="../../../src/bench/bulk_export.cpp" />
            <source>about {} are needed, {} are free</source>
            <translation>etwa {} werden gebraucht, {} sind frei</translation>
        </message>
        <message>
            <location filename="../../../src/bench/bulk_export.cpp" />
            <source>{} is a source; an export never writes one</source>
            <translation>{} ist eine Quelle; ein Export schreibt nie eine</translation>
        </message>
        <message>
            <location filename="../../../src/bench/bulk_export.cpp" />
            <source>{} is there already, and no export made it, or it was changed since</source>
            <translation>{} ist schon da, und kein Export hat es gemacht, oder es wurde seitdem geändert</translation>
        </message>
        <message>
            <location filename="../../../src/bench/bulk_export.cpp" />
            <source>{} lies in {}, which is a source; an export never writes into one</source>
            <translation>{} liegt in {}, einer Quelle; ein Export schreibt nie in eine</translation>
        </message>
        <message>
            <location filename="../../../src/bench/color_match.cpp" />
            <source>The color profile in the file cannot be used; its colors were taken as sRGB.</source>
            <translation>Das Farbprofil der Datei ist nicht zu gebrauchen; ihre Farben wurden als sRGB genommen.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/color_match.cpp" />
            <source>The color profile in the file is damaged; its colors were taken as sRGB.</source>
            <translation>Das Farbprofil der Datei ist beschädigt; ihre Farben wurden als sRGB genommen.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/color_match.cpp" />
            <source>The color profile in the file is for neither RGB nor gray; its colors were taken as sRGB.</source>
            <translation>Das Farbprofil der Datei ist weder für RGB noch für Grau; ihre Farben wurden als sRGB genommen.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/color_match.cpp" />
            <source>The file states a gamma of {:.3g}; its colors were converted to sRGB.</source>
            <translation>Die Datei nennt ein Gamma von {:.3Lg}; ihre Farben wurden in sRGB umgerechnet.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/color_match.cpp" />
            <source>The file's colors follow the profile "{}"; they were converted to sRGB.</source>
            <translation>Die Farben der Datei folgen dem Profil „{}“; sie wurden in sRGB umgerechnet.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/color_match.cpp" />
            <source>without a name</source>
            <translation>ohne Namen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/derived_map.cpp" />
            <source>its alpha</source>
            <translation>sein Alpha</translation>
        </message>
        <message>
            <location filename="../../../src/bench/derived_map.cpp" />
            <source>its blue</source>
            <translation>sein Blau</translation>
        </message>
        <message>
            <location filename="../../../src/bench/derived_map.cpp" />
            <source>its gray</source>
            <translation>sein Grau</translation>
        </message>
        <message>
            <location filename="../../../src/bench/derived_map.cpp" />
            <source>its green</source>
            <translation>sein Grün</translation>
        </message>
        <message>
            <location filename="../../../src/bench/derived_map.cpp" />
            <source>its heights</source>
            <translation>seine Höhen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/derived_map.cpp" />
            <source>its outlines</source>
            <translation>seine Umrisse</translation>
        </message>
        <message>
            <location filename="../../../src/bench/derived_map.cpp" />
            <source>its outlines, dark</source>
            <translation>seine Umrisse, dunkel</translation>
        </message>
        <message>
            <location filename="../../../src/bench/derived_map.cpp" />
            <source>its red</source>
            <translation>sein Rot</translation>
        </message>
        <message>
            <location filename="../../../src/bench/derived_map.cpp" />
            <source>touch-ups of it</source>
            <translation>Retuschen davon</translation>
        </message>
        <message>
            <location filename="../../../src/bench/edited.cpp" />
            <source>Save it as PNG, TIFF or OpenEXR, or as a texture file (DDS, KTX2)</source>
            <translation>Speichere es als PNG, TIFF oder OpenEXR, oder als Texturdatei (DDS, KTX2)</translation>
        </message>
        <message>
            <location filename="../../../src/bench/edited.cpp" />
            <source>The file is not whole. Save it again, or wait until it is saved</source>
            <translation>Die Datei ist nicht ganz. Speichere sie noch einmal, oder warte, bis sie gespeichert ist</translation>
        </message>
        <message>
            <location filename="../../../src/bench/edited.cpp" />
            <source>this is neither a picture nor a texture file we know</source>
            <translation>das ist weder ein Bild noch eine bekannte Texturdatei</translation>
        </message>
        <message>
            <location filename="../../../src/bench/export.cpp" />
            <source>8 bits a channel hold all of it</source>
            <translation>8 Bit je Kanal fassen alles</translation>
        </message>
        <message>
            <location filename="../../../src/bench/export.cpp" />
            <source>a picture has one layer, this texture {}</source>
            <translation>ein Bild hat eine Lage, diese Textur {}</translation>
        </message>
        <message>
            <location filename="../../../src/bench/export.cpp" />
            <source>a picture has one slice, this texture {}</source>
            <translation>ein Bild hat eine Schicht, diese Textur {}</translation>
        </message>
        <message>
            <location filename="../../../src/bench/export.cpp" />
            <source>more than 8 bits a channel</source>
            <translation>mehr als 8 Bit je Kanal</translation>
        </message>
        <message>
            <location filename="../../../src/bench/export.cpp" />
            <source>true values, brighter than white too</source>
            <translation>echte Werte, auch heller als Weiß</translation>
        </message>
        <message>
            <location filename="../../../src/bench/export.cpp" />
            <source>whole numbers, which no picture file keeps</source>
            <translation>ganze Zahlen, die keine Bilddatei bewahrt</translation>
        </message>
        <message>
            <location filename="../../../src/bench/export.cpp" />
            <source>{} goes back only as it is</source>
            <translation>{} geht nur zurück, wie es ist</translation>
        </message>
        <message>
            <location filename="../../../src/bench/export_manifest.cpp" />
            <source>Remove the line, or the file; without it files are matched by their paths</source>
            <translation>Entferne die Zeile oder die Datei; ohne sie werden Dateien nach ihren Pfaden zugeordnet</translation>
        </message>
        <message>
            <location filename="../../../src/bench/export_manifest.cpp" />
            <source>Wait until it is done, or choose another folder</source>
            <translation>Warte, bis er fertig ist, oder wähle einen anderen Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/bench/export_manifest.cpp" />
            <source>another export is writing into {}</source>
            <translation>ein anderer Export schreibt nach {}</translation>
        </message>
        <message>
            <location filename="../../../src/bench/export_manifest.cpp" />
            <source>line {} makes no sense: {}</source>
            <translation>Zeile {} ergibt keinen Sinn: {}</translation>
        </message>
        <message>
            <location filename="../../../src/bench/export_manifest.cpp" />
            <source>{} is no regular file</source>
            <translation>{} ist keine gewöhnliche Datei</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>1 block lost much</source>
            <translation>1 Block hat viel verloren</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>16 bits are kept as 8</source>
            <translation>16 Bit werden als 8 bewahrt</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>A picture has one slice; this texture has {}.</source>
            <translation>Ein Bild hat eine Schicht; diese Textur hat {}.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>A volume can only come back as DDS</source>
            <translation>Ein Volumen kann nur als DDS zurückkommen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>Alpha is left out</source>
            <translation>Alpha ist weggelassen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>Alpha is only on or off</source>
            <translation>Alpha ist nur an oder aus</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>Color under zero alpha was put back</source>
            <translation>Farbe unter Alpha null wurde zurückgelegt</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>Colors were converted</source>
            <translation>Farben wurden umgerechnet</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>Edit the copies by themselves</source>
            <translation>Bearbeite die Kopien für sich</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>Edits can come back as a texture file of the same format (KTX2), not as a picture.</source>
            <translation>Bearbeitungen können als Texturdatei desselben Formats (KTX2) zurückkommen, nicht als Bild.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>Format and filter match</source>
            <translation>Format und Filter stimmen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>It cannot become {}</source>
            <translation>Es kann nicht {} werden</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>Mend its size first</source>
            <translation>Bessere erst seine Größe nach</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>Only its brightness is kept</source>
            <translation>Nur seine Helligkeit bleibt</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>Only the first face or layer was edited</source>
            <translation>Nur die erste Fläche oder Lage wurde bearbeitet</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>Saved as {}, goes back as {}</source>
            <translation>Gespeichert als {}, geht zurück als {}</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>Saved with {} mips, goes back with {}</source>
            <translation>Mit {} Mips gespeichert, geht mit {} zurück</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>Size, mips and format match</source>
            <translation>Größe, Mips und Format stimmen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>The colors are gone</source>
            <translation>Die Farben sind weg</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>The directions are gone</source>
            <translation>Die Richtungen sind weg</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>The file does not say its format, or cannot say this one.</source>
            <translation>Die Datei sagt ihr Format nicht, oder kann dieses nicht sagen.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>The file has a palette without room for all of your colors, or packs with loss.</source>
            <translation>Die Palette der Datei hat nicht Platz für alle deine Farben, oder sie packt mit Verlust.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>The game expects the original's format. Save as PNG to lose nothing on the way.</source>
            <translation>Das Spiel erwartet das Format des Originals. Speichere als PNG, um unterwegs nichts zu verlieren.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>The levels are made again from the largest one.</source>
            <translation>Die Stufen werden aus der größten neu gemacht.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>The original has colors, the edit is gray. Was it saved with one channel?</source>
            <translation>Das Original hat Farben, die Bearbeitung ist grau. Wurde sie mit einem Kanal gespeichert?</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>The original is a normal map; the edit is gray, and the game would light it wrong.</source>
            <translation>Das Original ist eine Normalenkarte; die Bearbeitung ist grau, und das Spiel würde sie falsch beleuchten.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>The others stay as they are.</source>
            <translation>Die anderen bleiben, wie sie sind.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>The texture cannot be written back</source>
            <translation>Die Textur kann nicht zurückgeschrieben werden</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>You chose another format: {} bytes become {}, in the file and in the game's memory. All blocks are new.</source>
            <translation>Du hast ein anderes Format gewählt: aus {} Byte werden {}, in der Datei und im Speicher des Spiels. Alle Blöcke sind neu.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>mip {} is missing in the edit</source>
            <translation>Mip {} fehlt in der Bearbeitung</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>nothing can follow the edit of a cubemap or an array</source>
            <translation>der Bearbeitung einer Würfelkarte oder eines Stapels kann nichts folgen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>the edit has another size than the texture it was made of, so its copies cannot follow</source>
            <translation>die Bearbeitung hat eine andere Größe als die Textur, aus der sie entstand, also können ihre Kopien nicht folgen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>what the game would get</source>
            <translation>was das Spiel bekäme</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>{} becomes {}</source>
            <translation>{} wird {}</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>{} blocks lost much</source>
            <translation>{} Blöcke haben viel verloren</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>{} cannot hold so many different colors side by side; most was lost at {}, {}.</source>
            <translation>{} kann so viele verschiedene Farben nebeneinander nicht fassen; am meisten ging bei {}, {} verloren.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>{} has no alpha; what the edit has there is not used.</source>
            <translation>{} hat kein Alpha; was die Bearbeitung dort hat, wird nicht benutzt.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>{} has no more; finer steps of the edit are rounded.</source>
            <translation>{} hat nicht mehr; feinere Stufen der Bearbeitung werden gerundet.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>{} has one bit of alpha: from 128 on a texel is opaque.</source>
            <translation>{} hat ein Bit Alpha: ab 128 ist ein Texel deckend.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>{} has one channel; the colors of the edit become gray.</source>
            <translation>{} hat einen Kanal; die Farben der Bearbeitung werden grau.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>{} hidden texels had lost their color when the file was saved.</source>
            <translation>{} verborgene Texel hatten beim Speichern ihre Farbe verloren.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>{} is only read</source>
            <translation>{} lässt sich nur lesen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/fitting.cpp" />
            <source>{} texels got the nearest color</source>
            <translation>{} Texel bekamen die nächste Farbe</translation>
        </message>
        <message>
            <location filename="../../../src/bench/follow.cpp" />
            <source>Bring the edit back to the original's size</source>
            <translation>Bringe die Bearbeitung auf die Größe des Originals</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source> {} is no multiple of {}, the side of {}'s blocks.</source>
            <translation> {} ist kein Vielfaches von {}, der Seite der Blöcke von {}.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source> {} is no power of two, as both of the game's sides are.</source>
            <translation> {} ist keine Zweierpotenz, wie es beide Seiten im Spiel sind.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>A game that has the size in its own tables would show rubbish.</source>
            <translation>Ein Spiel, das die Größe in eigenen Tabellen hat, würde Unsinn zeigen.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>Alpha appeared</source>
            <translation>Alpha ist dazugekommen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>Alpha is gone</source>
            <translation>Alpha ist weg</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>Color is brighter than its alpha</source>
            <translation>Die Farbe ist heller als ihr Alpha</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>It could stay {}×{}</source>
            <translation>Es könnte {}×{} bleiben</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>Keep its size</source>
            <translation>Größe behalten</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>Make it opaque</source>
            <translation>Deckend machen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>Make them one long</source>
            <translation>Auf Länge eins bringen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>Multiply by alpha</source>
            <translation>Mit Alpha malnehmen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>Put alpha back</source>
            <translation>Alpha zurücklegen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>Resize it</source>
            <translation>Größe anpassen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>The file says its own size: {} bytes become {}, in the file and in the game's memory.</source>
            <translation>Die Datei sagt ihre Größe selbst: aus {} Byte werden {}, in der Datei und im Speicher des Spiels.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>The game reads the size from its own tables and would show rubbish.</source>
            <translation>Das Spiel liest die Größe aus eigenen Tabellen und würde Unsinn zeigen.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>The original is opaque; parts of the edit are not, and the game may show holes.</source>
            <translation>Das Original ist deckend; Teile der Bearbeitung sind es nicht, und das Spiel zeigt vielleicht Löcher.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>The original uses alpha; in the edit everything is opaque. A cut-out or a mask would be lost.</source>
            <translation>Das Original benutzt Alpha; in der Bearbeitung ist alles deckend. Ein Ausschnitt oder eine Maske ginge verloren.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>The original's colors are multiplied by alpha; in {} texels the edit's are not, and the game would let them glow.</source>
            <translation>Die Farben des Originals sind mit Alpha malgenommen; in {} Texeln sind es die der Bearbeitung nicht, und das Spiel würde sie leuchten lassen.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>There are: {}and alpha or all for several</source>
            <translation>Es gibt: {}und alpha oder all für mehrere</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>Undo it</source>
            <translation>Zurücknehmen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>What was painted there is a color, not a direction; in the game the light would be too bright or too dark.</source>
            <translation>Was dort gemalt ist, ist eine Farbe, keine Richtung; im Spiel wäre das Licht zu hell oder zu dunkel.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>You chose another size: {} bytes become {}, with {}.</source>
            <translation>Du hast eine andere Größe gewählt: aus {} Byte werden {}, mit {}.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>alpha is 255 everywhere</source>
            <translation>Alpha ist überall 255</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>bring painted normals to length one</source>
            <translation>gemalte Normalen auf Länge eins bringen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>bring the edit to the game's size</source>
            <translation>die Bearbeitung auf die Größe des Spiels bringen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>give the texture the edit's size, where its file can say so</source>
            <translation>der Textur die Größe der Bearbeitung geben, wo ihre Datei es sagen kann</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>multiply what was painted by its alpha</source>
            <translation>was gemalt ist mit seinem Alpha malnehmen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>take alpha from the game's texture</source>
            <translation>Alpha aus der Textur des Spiels nehmen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>there is no mend "{}"</source>
            <translation>es gibt keine Nachbesserung „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>undo what a program did to the whole picture while it saved</source>
            <translation>zurücknehmen, was ein Programm beim Speichern mit dem ganzen Bild tat</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>{} normals have a wrong length</source>
            <translation>{} Normalen haben eine falsche Länge</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>{}; or all that are about {}; or all</source>
            <translation>{}; oder alle, die {} betreffen; oder all</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>{}×{} becomes {}×{}</source>
            <translation>{}×{} wird {}×{}</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mends.cpp" />
            <source>{}×{} where the game has {}×{}</source>
            <translation>{}×{}, wo das Spiel {}×{} hat</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mip_guess.cpp" />
            <source> (others fit as well)</source>
            <translation> (andere passen auch)</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mip_guess.cpp" />
            <source> ({:.0f} % sure)</source>
            <translation> (zu {:.0f} % sicher)</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mip_guess.cpp" />
            <source> ({:.0f} % sure, {} comes close)</source>
            <translation> (zu {:.0f} % sicher, {} kommt nahe heran)</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mip_guess.cpp" />
            <source> · level {} by hand</source>
            <translation> · Stufe {} von Hand</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mip_guess.cpp" />
            <source> · levels {} by hand</source>
            <translation> · Stufen {} von Hand</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mip_guess.cpp" />
            <source> · {} of {} levels, down to {}×{}</source>
            <translation> · {} von {} Stufen, hinunter bis {}×{}</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mip_guess.cpp" />
            <source>by hand, or with a filter we do not know; box is used where you painted</source>
            <translation>von Hand, oder mit einem unbekannten Filter; wo du gemalt hast, wird Kasten benutzt</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mip_guess.cpp" />
            <source>one level only</source>
            <translation>nur eine Stufe</translation>
        </message>
        <message>
            <location filename="../../../src/bench/mip_guess.cpp" />
            <source>one value, in {}</source>
            <translation>ein Wert, in {}</translation>
        </message>
        <message>
            <location filename="../../../src/bench/open_raster.cpp" />
            <source>Save it with a program that writes one, or export it as PNG</source>
            <translation>Speichere es mit einem Programm, das eines schreibt, oder exportiere es als PNG</translation>
        </message>
        <message>
            <location filename="../../../src/bench/open_raster.cpp" />
            <source>the file has layers but no mergedimage.png</source>
            <translation>die Datei hat Ebenen, aber kein mergedimage.png</translation>
        </message>
        <message>
            <location filename="../../../src/bench/rebuild.cpp" />
            <source>mip {} is missing</source>
            <translation>Mip {} fehlt</translation>
        </message>
        <message>
            <location filename="../../../src/bench/save_fault.cpp" />
            <source>Color was multiplied by alpha</source>
            <translation>Die Farbe wurde mit Alpha multipliziert</translation>
        </message>
        <message>
            <location filename="../../../src/bench/save_fault.cpp" />
            <source>Encoded twice: too bright</source>
            <translation>Zweimal kodiert: zu hell</translation>
        </message>
        <message>
            <location filename="../../../src/bench/save_fault.cpp" />
            <source>Green is the other way round</source>
            <translation>Grün ist andersherum</translation>
        </message>
        <message>
            <location filename="../../../src/bench/save_fault.cpp" />
            <source>Laid on white</source>
            <translation>Auf Weiß gelegt</translation>
        </message>
        <message>
            <location filename="../../../src/bench/save_fault.cpp" />
            <source>Red and blue changed places</source>
            <translation>Rot und Blau sind vertauscht</translation>
        </message>
        <message>
            <location filename="../../../src/bench/save_fault.cpp" />
            <source>Saved in linear light: too dark</source>
            <translation>In linearem Licht gespeichert: zu dunkel</translation>
        </message>
        <message>
            <location filename="../../../src/bench/save_fault.cpp" />
            <source>The program darkened partly transparent colors while it saved; in the game the edges would get dark seams.</source>
            <translation>Das Programm hat beim Speichern halb durchsichtige Farben abgedunkelt; im Spiel bekämen die Ränder dunkle Säume.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/save_fault.cpp" />
            <source>The program decoded the colors while it saved, also where nothing was painted. In the game everything would be too dark.</source>
            <translation>Das Programm hat die Farben beim Speichern dekodiert, auch wo nichts gemalt wurde. Im Spiel wäre alles zu dunkel.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/save_fault.cpp" />
            <source>The program encoded the colors once more while it saved, also where nothing was painted. In the game they would look washed out.</source>
            <translation>Das Programm hat die Farben beim Speichern noch einmal kodiert, auch wo nichts gemalt wurde. Im Spiel sähen sie ausgewaschen aus.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/save_fault.cpp" />
            <source>The program filled what is transparent with white; in the game white would show through wherever alpha is no transparency.</source>
            <translation>Das Programm hat gefüllt, was durchsichtig ist, und zwar mit Weiß; im Spiel schiene Weiß durch, wo Alpha keine Durchsichtigkeit ist.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/save_fault.cpp" />
            <source>The program saved the channels in another order than it said.</source>
            <translation>Das Programm hat die Kanäle in anderer Reihenfolge gespeichert, als es sagt.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/save_fault.cpp" />
            <source>The rows were saved from bottom to top; the game would show the picture upside down.</source>
            <translation>Die Zeilen wurden von unten nach oben gespeichert; das Spiel würde das Bild auf dem Kopf zeigen.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/save_fault.cpp" />
            <source>Two conventions point a normal map's green up or down; yours has the other one, and the game's light would come from below.</source>
            <translation>Das Grün einer Normal-Map zeigt je nach Vereinbarung nach oben oder unten; deins folgt der anderen, und das Licht käme im Spiel von unten.</translation>
        </message>
        <message>
            <location filename="../../../src/bench/save_fault.cpp" />
            <source>Upside down</source>
            <translation>Auf dem Kopf</translation>
        </message>
        <message>
            <location filename="../../../src/bench/touching.cpp" />
            <source>"{}" cannot be the name of a list</source>
            <translation>„{}“ kann nicht der Name einer Liste sein</translation>
        </message>
        <message>
            <location filename="../../../src/bench/touching.cpp" />
            <source>Letters, digits and spaces</source>
            <translation>Buchstaben, Ziffern und Leerzeichen</translation>
        </message>
        <message>
            <location filename="../../../src/bench/touching.cpp" />
            <source>None is kept yet</source>
            <translation>Noch ist keine behalten</translation>
        </message>
        <message>
            <location filename="../../../src/bench/touching.cpp" />
            <source>Save it with 8 or 16 bits, as PNG or TIFF</source>
            <translation>Speichere es mit 8 oder 16 Bit, als PNG oder TIFF</translation>
        </message>
        <message>
            <location filename="../../../src/bench/touching.cpp" />
            <source>There are: {}</source>
            <translation>Es gibt: {}</translation>
        </message>
        <message>
            <location filename="../../../src/bench/touching.cpp" />
            <source>there is no list of touch-ups "{}"</source>
            <translation>es gibt keine Liste von Retuschen „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/bench/touching.cpp" />
            <source>touch-ups are not made on true values</source>
            <translation>an echten Werten wird nicht retuschiert</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/analysis.cpp" />
            <source>you said so</source>
            <translation>du hast es gesagt</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/baseline.cpp" />
            <source>cannot write the baseline</source>
            <translation>der Auslieferungsstand lässt sich nicht schreiben</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/catalog.cpp" />
            <source>Add it as a source of its own</source>
            <translation>Füge es als eigene Quelle hinzu</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/catalog.cpp" />
            <source>Put it beside the texture's other files</source>
            <translation>Lege sie neben die anderen Dateien der Textur</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/catalog.cpp" />
            <source>there is no entry "{}" any more</source>
            <translation>es gibt keinen Eintrag „{}“ mehr</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/catalog.cpp" />
            <source>too much lies in archives inside archives; this one is not opened</source>
            <translation>in Archiven in Archiven liegt zu viel; dieses wird nicht geöffnet</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/catalog.cpp" />
            <source>{} is missing: its levels cannot be shown</source>
            <translation>{} fehlt: seine Stufen können nicht gezeigt werden</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/frame_record.cpp" />
            <source>A newer Skivet reads it</source>
            <translation>Ein neueres Skivet liest es</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/frame_record.cpp" />
            <source>docs/frame-record.md describes what is read</source>
            <translation>docs/frame-record.md beschreibt, was gelesen wird</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/frame_record.cpp" />
            <source>line {}: {}</source>
            <translation>Zeile {}: {}</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/frame_record.cpp" />
            <source>more than {} draws</source>
            <translation>mehr als {} Zeichenbefehle</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/frame_record.cpp" />
            <source>more than {} textures</source>
            <translation>mehr als {} Texturen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/frame_record.cpp" />
            <source>the record is of version {}, version {} is read</source>
            <translation>die Aufnahme hat Version {}, gelesen wird Version {}</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/frame_record.cpp" />
            <source>there are two textures {}</source>
            <translation>es gibt zwei Texturen {}</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/frame_record.cpp" />
            <source>there is no draw {}</source>
            <translation>es gibt keinen Zeichenbefehl {}</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/frame_record.cpp" />
            <source>this is no frame record: no line says that it begins</source>
            <translation>das ist keine Bildaufnahme: Keine Zeile sagt, dass sie beginnt</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/frame_record.cpp" />
            <source>this is no line of a frame record</source>
            <translation>das ist keine Zeile einer Bildaufnahme</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/frame_record.cpp" />
            <source>{} is outside of the record's folder</source>
            <translation>{} liegt außerhalb des Ordners der Aufnahme</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>Choose the folder the game is installed in</source>
            <translation>Wähle den Ordner, in dem das Spiel installiert ist</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>a copy that somebody keeps</source>
            <translation>eine Kopie, die jemand aufhebt</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>archives in it</source>
            <translation>Archive darin</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>being cut into {} parts</source>
            <translation>in {} Teile geschnitten</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>cannot read the folder {}</source>
            <translation>der Ordner {} kann nicht gelesen werden</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>empty, and the game looks there first</source>
            <translation>leer, und das Spiel sieht dort zuerst nach</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>for people to read, not for the game</source>
            <translation>für Menschen zum Lesen, nicht für das Spiel</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>it is empty</source>
            <translation>er ist leer</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>its name</source>
            <translation>sein Name</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>its only entry is no texture</source>
            <translation>sein einziger Eintrag ist keine Textur</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>names known only by hashes</source>
            <translation>Namen, die nur als Hash bekannt sind</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>no texture among its {} entries</source>
            <translation>keine Textur unter seinen {} Einträgen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>nothing describes it yet</source>
            <translation>noch beschreibt es nichts</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>one texture in it</source>
            <translation>eine Textur darin</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>one texture or picture in it</source>
            <translation>eine Textur oder ein Bild darin</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>only one picture here</source>
            <translation>hier nur ein Bild</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>only two pictures here</source>
            <translation>hier nur zwei Bilder</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>recognized by {}</source>
            <translation>erkannt: {}</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>the folder "{}"</source>
            <translation>der Ordner „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>what set the game up</source>
            <translation>was das Spiel eingerichtet hat</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>{} files named *{}, which nothing describes yet</source>
            <translation>{} Dateien namens *{}, die noch nichts beschreibt</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>{} files without an ending, which nothing describes yet</source>
            <translation>{} Dateien ohne Endung, die noch nichts beschreibt</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>{} is no folder</source>
            <translation>{} ist kein Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>{} textures and pictures in it</source>
            <translation>{} Texturen und Bilder darin</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/game_survey.cpp" />
            <source>{} textures in it</source>
            <translation>{} Texturen darin</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/index_store.cpp" />
            <source>cannot write the index</source>
            <translation>der Index lässt sich nicht schreiben</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/leftovers.cpp" />
            <source>a copy of {} that somebody made before changing it</source>
            <translation>eine Kopie von {}, die jemand machte, bevor er es änderte</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/leftovers.cpp" />
            <source>it has a system library's name and lies beside the program, so the game loads it in that one's place</source>
            <translation>es heißt wie eine Bibliothek des Systems und liegt neben dem Programm, also lädt das Spiel es an deren Stelle</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/leftovers.cpp" />
            <source>{} does not name it, so the game may not load it</source>
            <translation>{} nennt es nicht, also lädt das Spiel es vielleicht nicht</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/likeness.cpp" />
            <source>larger copy</source>
            <translation>größere Kopie</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/likeness.cpp" />
            <source>other colors</source>
            <translation>andere Farben</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/likeness.cpp" />
            <source>same picture</source>
            <translation>dasselbe Bild</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/likeness.cpp" />
            <source>smaller copy</source>
            <translation>kleinere Kopie</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/list_file.cpp" />
            <source>Name the list by which the game loads them, or none</source>
            <translation>Nenne die Liste, nach der das Spiel sie lädt, oder keine</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/list_file.cpp" />
            <source>the list names none of the game's archives</source>
            <translation>die Liste nennt keines der Archive des Spiels</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/load_order.cpp" />
            <source>by its name</source>
            <translation>nach seinem Namen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/load_order.cpp" />
            <source>its number, after {}</source>
            <translation>seine Nummer, nach {}</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/load_order.cpp" />
            <source>loose files, which usually win over archives</source>
            <translation>lose Dateien, die meist über Archive gewinnen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/load_order.cpp" />
            <source>number {} in {}</source>
            <translation>Nummer {} in {}</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/load_order.cpp" />
            <source>shares paths with {} and is {} days newer</source>
            <translation>teilt Pfade mit {} und ist {} Tage neuer</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/load_order.cpp" />
            <source>shares paths with {}, and only its name says that it comes later</source>
            <translation>teilt Pfade mit {}, und nur sein Name sagt, dass es später kommt</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/load_order.cpp" />
            <source>{} does not name it</source>
            <translation>{} nennt es nicht</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/load_order.cpp" />
            <source>{}, by {}</source>
            <translation>{}, nach {}</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/names.cpp" />
            <source>the names of {}</source>
            <translation>die Namen von {}</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/picture_facts.cpp" />
            <source>It is not looked at for its role or a small picture; it can be opened and exported</source>
            <translation>Für Rolle und kleines Bild wird sie nicht angesehen; öffnen und ausgeben lässt sie sich</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/picture_facts.cpp" />
            <source>green unsure</source>
            <translation>Grün unsicher</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/picture_facts.cpp" />
            <source>green up</source>
            <translation>Grün nach oben</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/picture_facts.cpp" />
            <source>{}×{} texels can only be decoded all at once</source>
            <translation>{}×{} Texel lassen sich nur im Ganzen dekodieren</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/place_words.cpp" />
            <source>base</source>
            <translation>Grundspiel</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/place_words.cpp" />
            <source>extra content</source>
            <translation>Zusatzinhalt</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/place_words.cpp" />
            <source>other mods</source>
            <translation>andere Mods</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/place_words.cpp" />
            <source>override</source>
            <translation>bevorzugt</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/place_words.cpp" />
            <source>update</source>
            <translation>Aktualisierung</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/query.cpp" />
            <source>Source</source>
            <translation>Quelle</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/query.cpp" />
            <source>down to 1×1</source>
            <translation>bis 1×1</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/query.cpp" />
            <source>in a set</source>
            <translation>in einem Satz</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/query.cpp" />
            <source>in the game</source>
            <translation>im Spiel</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/query.cpp" />
            <source>none stored</source>
            <translation>keines gespeichert</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/query.cpp" />
            <source>not known</source>
            <translation>unbekannt</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/query.cpp" />
            <source>not looked at yet</source>
            <translation>noch nicht angesehen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/query.cpp" />
            <source>not stated</source>
            <translation>nicht angegeben</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/query.cpp" />
            <source>parts missing</source>
            <translation>Teile fehlen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/query.cpp" />
            <source>same picture elsewhere</source>
            <translation>dasselbe Bild anderswo</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/query.cpp" />
            <source>shared by many</source>
            <translation>von vielen geteilt</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/query.cpp" />
            <source>some levels</source>
            <translation>einige Stufen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>, and no name says more</source>
            <translation>, und kein Name sagt mehr</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>, but gray: heights, not normals</source>
            <translation>, aber grau: Höhen, keine Normalen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>a cubemap</source>
            <translation>eine Würfelkarte</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>a picture by itself: {}</source>
            <translation>ein Bild für sich: {}</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>alpha and green are a normal's x and y</source>
            <translation>Alpha und Grün sind x und y einer Normalen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>base color</source>
            <translation>Grundfarbe</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>colors and shapes</source>
            <translation>Farben und Formen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>emission</source>
            <translation>Leuchten</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>folder</source>
            <translation>Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>gray and even</source>
            <translation>grau und gleichmäßig</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>gray, with much contrast</source>
            <translation>grau, mit viel Kontrast</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>height</source>
            <translation>Höhe</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>in a folder {}</source>
            <translation>in einem Ordner {}</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>interface</source>
            <translation>Bedienung</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>its channels are nearly all on or off</source>
            <translation>seine Kanäle sind fast überall an oder aus</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>its two channels are a normal's x and y</source>
            <translation>seine beiden Kanäle sind x und y einer Normalen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>its vectors have length one and point to the front</source>
            <translation>seine Vektoren haben Länge eins und zeigen nach vorn</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>lightmap</source>
            <translation>Lightmap</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>metalness</source>
            <translation>Metall</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>most names here say their role, this one does not</source>
            <translation>die meisten Namen hier sagen ihre Rolle, dieser nicht</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>named {}…</source>
            <translation>heißt {}…</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>named …{}</source>
            <translation>heißt …{}</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>named …{}…</source>
            <translation>heißt …{}…</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>nearly gray with a tint</source>
            <translation>fast grau mit einem Stich</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>normal</source>
            <translation>Normalen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>occlusion</source>
            <translation>Verdeckung</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>prefix</source>
            <translation>vorn</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>roughness, gloss</source>
            <translation>Rauheit, Glanz</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>sky</source>
            <translation>Himmel</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>specular</source>
            <translation>Spiegelung</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>suffix</source>
            <translation>hinten</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>the one of its set without a role in its name</source>
            <translation>das eine in seinem Satz ohne Rolle im Namen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>two tones on {}</source>
            <translation>zwei Töne auf {}</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>unsure</source>
            <translation>unsicher</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>word</source>
            <translation>Wort</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>{} black with a few bright places</source>
            <translation>{} schwarz mit wenigen hellen Stellen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>{} white with dark creases</source>
            <translation>{} weiß mit dunklen Falten</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/roles.cpp" />
            <source>{}, but {}</source>
            <translation>{}, aber {}</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/sqlite.cpp" />
            <source>Choose another file, or move this one away</source>
            <translation>Wähle eine andere Datei, oder schiebe diese weg</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/sqlite.cpp" />
            <source>Move it away to begin anew</source>
            <translation>Schiebe es weg, um neu anzufangen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/sqlite.cpp" />
            <source>is no database this version of Skivet can read</source>
            <translation>ist keine Datenbank, die diese Version von Skivet lesen kann</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/sqlite.cpp" />
            <source>{} is no index of Skivet's, so it is left alone</source>
            <translation>{} ist kein Index von Skivet und bleibt unberührt</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/sqlite.h" />
            <source>no memory</source>
            <translation>kein Speicher</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/thumbnail_cache.cpp" />
            <source>cannot clear the picture cache</source>
            <translation>der Bildspeicher lässt sich nicht leeren</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/thumbnail_cache.cpp" />
            <source>cannot make room in the picture cache</source>
            <translation>im Bildspeicher lässt sich kein Platz schaffen</translation>
        </message>
        <message>
            <location filename="../../../src/catalog/thumbnail_cache.cpp" />
            <source>cannot write the picture cache</source>
            <translation>der Bildspeicher lässt sich nicht schreiben</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source> and {}-bit</source>
            <translation> und {} Bit</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source> by deltas</source>
            <translation> als Abstände</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source> · {}-bit indices</source>
            <translation> · Indizes von {} Bit</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>, with clear texels</source>
            <translation>, mit klaren Texeln</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>, {} for alpha</source>
            <translation>, {} für Alpha</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>RGB</source>
            <translation>RGB</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>base {}, table {} × {}</source>
            <translation>Grundwert {}, Tabelle {} × {}</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>differential · {}{}</source>
            <translation>differenziell · {}{}</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>four colors</source>
            <translation>vier Farben</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>halves above each other</source>
            <translation>Hälften übereinander</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>halves side by side</source>
            <translation>Hälften nebeneinander</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>individual · {}</source>
            <translation>einzeln · {}</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>mode {} · </source>
            <translation>Modus {} · </translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>mode {} · {} · {}-bit endpoints{}</source>
            <translation>Modus {} · {} · Endpunkte von {} Bit{}</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>one region</source>
            <translation>ein Bereich</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>one subset</source>
            <translation>eine Teilmenge</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>reserved mode</source>
            <translation>reservierter Modus</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>three colors and clear</source>
            <translation>drei Farben und klar</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>two regions</source>
            <translation>zwei Bereiche</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>{} subsets, partition {}</source>
            <translation>{} Teilmengen, Aufteilung {}</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>{} to {} in {} steps</source>
            <translation>{} bis {} in {} Schritten</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>{} · {} to {}</source>
            <translation>{} · {} bis {}</translation>
        </message>
        <message>
            <location filename="../../../src/codec/block_facts.cpp" />
            <source>{}×{} texels in {} bytes</source>
            <translation>{}×{} Texel in {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/codec/registry.cpp" />
            <source>8 bits do not hold this format</source>
            <translation>8 Bit fassen dieses Format nicht</translation>
        </message>
        <message>
            <location filename="../../../src/codec/registry.cpp" />
            <source>Textures of this format can be shown and exported, not written</source>
            <translation>Texturen dieses Formats lassen sich zeigen und exportieren, nicht schreiben</translation>
        </message>
        <message>
            <location filename="../../../src/codec/registry.cpp" />
            <source>the pictures differ in size</source>
            <translation>die Bilder sind verschieden groß</translation>
        </message>
        <message>
            <location filename="../../../src/codec/registry.cpp" />
            <source>the pixel format is unknown</source>
            <translation>das Pixelformat ist unbekannt</translation>
        </message>
        <message>
            <location filename="../../../src/codec/registry.cpp" />
            <source>{} {}×{}: needs {} bytes, has {}</source>
            <translation>{} {}×{}: braucht {} Byte, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/address.cpp" />
            <source>"{}" is changed as a whole and inside</source>
            <translation>„{}“ wird als Ganzes und innen geändert</translation>
        </message>
        <message>
            <location filename="../../../src/container/address.cpp" />
            <source>"{}" is no address</source>
            <translation>„{}“ ist keine Adresse</translation>
        </message>
        <message>
            <location filename="../../../src/container/address.cpp" />
            <source>"{}" is replaced twice</source>
            <translation>„{}“ wird zweimal ersetzt</translation>
        </message>
        <message>
            <location filename="../../../src/container/address.cpp" />
            <source>Write archive.zip::path/inside.dds</source>
            <translation>Schreibe archiv.zip::pfad/darin.dds</translation>
        </message>
        <message>
            <location filename="../../../src/container/address.cpp" />
            <source>archives more than {} deep</source>
            <translation>Archive mehr als {} tief</translation>
        </message>
        <message>
            <location filename="../../../src/container/address.cpp" />
            <source>skivet-cli list shows what is inside</source>
            <translation>skivet-cli list zeigt, was darin ist</translation>
        </message>
        <message>
            <location filename="../../../src/container/address.cpp" />
            <source>there is no entry "{}"</source>
            <translation>es gibt keinen Eintrag „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/container/address.cpp" />
            <source>{} does not read back as it was written</source>
            <translation>{} liest sich nicht zurück, wie es geschrieben wurde</translation>
        </message>
        <message>
            <location filename="../../../src/container/address.cpp" />
            <source>{} is still there</source>
            <translation>{} ist noch da</translation>
        </message>
        <message>
            <location filename="../../../src/container/bare_file.cpp" />
            <source>A texture without a header keeps format, size, mips and palette: nothing in the file says others</source>
            <translation>Eine Textur ohne Kopf behält Format, Größe, Mips und Palette: nichts in der Datei sagt andere</translation>
        </message>
        <message>
            <location filename="../../../src/container/bare_file.cpp" />
            <source>it is no DDS file with the same palette</source>
            <translation>es ist keine DDS-Datei mit derselben Palette</translation>
        </message>
        <message>
            <location filename="../../../src/container/bare_file.cpp" />
            <source>it is {} {} with {} mips, the original {} {} with {}</source>
            <translation>es ist {} {} mit {} Mips, das Original {} {} mit {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/bare_file.cpp" />
            <source>its levels take {} bytes, the original's {}</source>
            <translation>seine Stufen nehmen {} Byte, die des Originals {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/container.cpp" />
            <source>"{}" is changed in two ways at once</source>
            <translation>„{}“ wird auf zwei Arten zugleich geändert</translation>
        </message>
        <message>
            <location filename="../../../src/container/container.cpp" />
            <source>"{}" is no path inside an archive</source>
            <translation>„{}“ ist kein Pfad in einem Archiv</translation>
        </message>
        <message>
            <location filename="../../../src/container/container.cpp" />
            <source>Deliver into an override folder instead, if the game has one</source>
            <translation>Liefere stattdessen in einen bevorzugten Ordner, wenn das Spiel einen hat</translation>
        </message>
        <message>
            <location filename="../../../src/container/container.cpp" />
            <source>Deliver into the archive itself or into an override folder</source>
            <translation>Liefere ins Archiv selbst oder in einen bevorzugten Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/container/container.cpp" />
            <source>Folders and a name, with / between them, such as textures/horse_blue.dds</source>
            <translation>Ordner und ein Name, mit / dazwischen, etwa textures/horse_blue.dds</translation>
        </message>
        <message>
            <location filename="../../../src/container/container.cpp" />
            <source>It can be taken out unpacked</source>
            <translation>Es lässt sich entpackt herausholen</translation>
        </message>
        <message>
            <location filename="../../../src/container/container.cpp" />
            <source>Replace its content instead</source>
            <translation>Ersetze stattdessen seinen Inhalt</translation>
        </message>
        <message>
            <location filename="../../../src/container/container.cpp" />
            <source>a patch archive of the kind {} cannot be made</source>
            <translation>ein Patch-Archiv der Art {} lässt sich nicht machen</translation>
        </message>
        <message>
            <location filename="../../../src/container/container.cpp" />
            <source>is another entry afterwards</source>
            <translation>ist danach ein anderer Eintrag</translation>
        </message>
        <message>
            <location filename="../../../src/container/container.cpp" />
            <source>several entries have the name of "{}"</source>
            <translation>mehrere Einträge heißen „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/container/container.cpp" />
            <source>the archive has another number of entries afterwards</source>
            <translation>das Archiv hat danach eine andere Zahl von Einträgen</translation>
        </message>
        <message>
            <location filename="../../../src/container/container.cpp" />
            <source>there is an entry "{}" already</source>
            <translation>es gibt schon einen Eintrag „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/container/container.cpp" />
            <source>there is no such entry</source>
            <translation>einen solchen Eintrag gibt es nicht</translation>
        </message>
        <message>
            <location filename="../../../src/container/container.cpp" />
            <source>what a {} holds can be replaced, but nothing added, renamed or taken out</source>
            <translation>was ein {} enthält, kann ersetzt werden, aber nichts kommt dazu, wird umbenannt oder herausgenommen</translation>
        </message>
        <message>
            <location filename="../../../src/container/container.cpp" />
            <source>{}: a {} archive does not keep its entries apart</source>
            <translation>{}: ein {}-Archiv hält seine Einträge nicht getrennt</translation>
        </message>
        <message>
            <location filename="../../../src/container/cpio.cpp" />
            <source>Change one of them; the other follows</source>
            <translation>Ändere eine davon; die andere folgt</translation>
        </message>
        <message>
            <location filename="../../../src/container/cpio.cpp" />
            <source>The archive is cut off or damaged; what follows is not listed</source>
            <translation>Das Archiv ist abgeschnitten oder beschädigt; was folgt, wird nicht aufgeführt</translation>
        </message>
        <message>
            <location filename="../../../src/container/cpio.cpp" />
            <source>a cpio header</source>
            <translation>ein cpio-Kopf</translation>
        </message>
        <message>
            <location filename="../../../src/container/cpio.cpp" />
            <source>a damaged archive is only read</source>
            <translation>ein beschädigtes Archiv wird nur gelesen</translation>
        </message>
        <message>
            <location filename="../../../src/container/cpio.cpp" />
            <source>an entry with a name of {} and content of {} bytes, {} are left</source>
            <translation>ein Eintrag mit einem Namen von {} und Inhalt von {} Byte, {} sind übrig</translation>
        </message>
        <message>
            <location filename="../../../src/container/cpio.cpp" />
            <source>an old cpio header, and its name</source>
            <translation>ein alter cpio-Kopf und der Name</translation>
        </message>
        <message>
            <location filename="../../../src/container/cpio.cpp" />
            <source>is the same file as "{}", which gets other content</source>
            <translation>ist dieselbe Datei wie „{}“, die anderen Inhalt bekommt</translation>
        </message>
        <message>
            <location filename="../../../src/container/cpio.cpp" />
            <source>its bytes add up to {:08x}, its header says {:08x}</source>
            <translation>die Summe seiner Bytes ist {:08x}, im Kopf steht {:08x}</translation>
        </message>
        <message>
            <location filename="../../../src/container/cpio.cpp" />
            <source>its name is too long for the archive</source>
            <translation>der Name ist zu lang für das Archiv</translation>
        </message>
        <message>
            <location filename="../../../src/container/cpio.cpp" />
            <source>more than {} entries</source>
            <translation>mehr als {} Einträge</translation>
        </message>
        <message>
            <location filename="../../../src/container/cpio.cpp" />
            <source>no cpio header is there</source>
            <translation>da ist kein cpio-Kopf</translation>
        </message>
        <message>
            <location filename="../../../src/container/cpio.cpp" />
            <source>{} bytes are more than its header can say</source>
            <translation>{} Byte sind mehr, als sein Kopf sagen kann</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_content.cpp" />
            <source>a checksum of each entry</source>
            <translation>eine Prüfsumme jedes Eintrags</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_content.cpp" />
            <source>all entries look as if they were packed or encrypted in a way that is not known</source>
            <translation>alle Einträge sehen aus, als wären sie auf unbekannte Art gepackt oder verschlüsselt</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_content.cpp" />
            <source>entries are hidden by a key of {} bytes</source>
            <translation>Einträge sind mit einem Schlüssel von {} Byte verdeckt</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_content.cpp" />
            <source>entries are hidden by the same key as the records</source>
            <translation>Einträge sind mit demselben Schlüssel versteckt wie die Sätze</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_content.cpp" />
            <source>entries are packed with {}</source>
            <translation>Einträge sind mit {} gepackt</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_content.cpp" />
            <source>entries have a second, larger size, but nothing that is known unpacks them to it</source>
            <translation>Einträge haben eine zweite, größere Größe, aber nichts Bekanntes packt sie darauf aus</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>all of the likeliest table's {} names begin with the same byte, which is hardly one of theirs</source>
            <translation>alle {} Namen der wahrscheinlichsten Tabelle beginnen mit demselben Byte, das kaum eines von ihnen ist</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>each entry would end where the next one begins, but another column of the {} records looks like sizes or ends</source>
            <translation>jeder Eintrag würde enden, wo der nächste beginnt, aber eine andere Spalte der {} Sätze sieht nach Größen oder Enden aus</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>most of the likeliest records' names begin behind letters and may be parts of names</source>
            <translation>die meisten Namen der wahrscheinlichsten Sätze beginnen hinter Buchstaben und sind vielleicht Teile von Namen</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>names that lie apart are hidden like the records</source>
            <translation>Namen, die getrennt liegen, sind wie die Sätze versteckt</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>of the likeliest table's {} entries that were looked at only {} can be read</source>
            <translation>von den {} angesehenen Einträgen der wahrscheinlichsten Tabelle sind nur {} lesbar</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>of the likeliest table's {} records only {} can be read</source>
            <translation>von den {} Sätzen der wahrscheinlichsten Tabelle sind nur {} lesbar</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>only places that rise speak for the likeliest table, and the header does not know its {} entries</source>
            <translation>nur steigende Orte sprechen für die wahrscheinlichste Tabelle, und der Kopf kennt ihre {} Einträge nicht</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>only {} speak for the likeliest table: nothing tells its {} entries' names, and nothing in them is checked</source>
            <translation>nur {} sprechen für die wahrscheinlichste Tabelle: nichts sagt die Namen ihrer {} Einträge, und nichts darin ist geprüft</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>places that rise</source>
            <translation>steigende Orte</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>sizes fit one after the other, but another column of the {} records looks like places</source>
            <translation>Größen passen hintereinander, aber eine andere Spalte der {} Sätze sieht wie Orte aus</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>sizes with the right sum</source>
            <translation>Größen mit der richtigen Summe</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>some entries are zlib streams, and nothing was found that says which</source>
            <translation>manche Einträge sind zlib-Ströme, und es ist nichts zu finden, was sagt, welche</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>the likeliest table ends within the first of the names behind it</source>
            <translation>die wahrscheinlichste Tabelle endet im ersten der Namen dahinter</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>the likeliest table leaves {} of {} bytes unexplained</source>
            <translation>die wahrscheinlichste Tabelle lässt {} von {} Byte unerklärt</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>the likeliest table's {} entries do not fill {}</source>
            <translation>die {} Einträge der wahrscheinlichsten Tabelle füllen {} nicht</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>the likeliest table's {} entries have only {} different names</source>
            <translation>die {} Einträge der wahrscheinlichsten Tabelle haben nur {} verschiedene Namen</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>the likeliest table's {} records are hidden, and nothing shows whether the entries are</source>
            <translation>die {} Sätze der wahrscheinlichsten Tabelle sind verdeckt, und nichts zeigt, ob es die Einträge sind</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>the likeliest table's {} records are hidden, and only places that rise speak for it</source>
            <translation>die {} Sätze der wahrscheinlichsten Tabelle sind verdeckt, und nur steigende Orte sprechen dafür</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>the likeliest table's {} records hold text that does not fit into them as names</source>
            <translation>die {} Sätze der wahrscheinlichsten Tabelle enthalten Text, der nicht als Namen hineinpasst</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>the likeliest table's {} records may say an entry's last byte or the one behind it: all are padded</source>
            <translation>die {} Sätze der wahrscheinlichsten Tabelle nennen vielleicht das letzte Byte eines Eintrags oder das dahinter: alle sind aufgefüllt</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>the {} bytes between the likeliest table and its names look like the rest of a record: it begins later</source>
            <translation>die {} Byte zwischen der wahrscheinlichsten Tabelle und ihren Namen sehen wie der Rest eines Satzes aus: er beginnt später</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>what stands before the likeliest table's {} names looks like their first signs</source>
            <translation>was vor den {} Namen der wahrscheinlichsten Tabelle steht, sieht wie ihre ersten Zeichen aus</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>with the likeliest key the header does not know the table's {} entries</source>
            <translation>mit dem wahrscheinlichsten Schlüssel kennt der Kopf die {} Einträge der Tabelle nicht</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>{} bytes at {} that nothing explains lie right beside the entries</source>
            <translation>{} Byte bei {}, die nichts erklärt, liegen gleich neben den Einträgen</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>{} bytes in front of the likeliest table's {} entries are not explained</source>
            <translation>{} Byte vor den {} Einträgen der wahrscheinlichsten Tabelle sind nicht erklärt</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>{} names at {} lie in what would be an entry</source>
            <translation>{} Namen bei {} liegen in dem, was ein Eintrag wäre</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>{} of the likeliest table's {} entries are empty, so nothing shows that it is one</source>
            <translation>{} von {} Einträgen der wahrscheinlichsten Tabelle sind leer, also zeigt nichts, dass es eine ist</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>{} records may be chance, and the header knows neither how many there are nor where</source>
            <translation>{} Sätze können Zufall sein, und der Kopf weiß weder, wie viele es sind, noch wo sie stehen</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>{} records that lead from one to the next may be chance, and {} bytes in front of them are not explained</source>
            <translation>{} Sätze, die von einem zum nächsten führen, können Zufall sein, und {} Byte davor sind nicht erklärt</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_doubts.cpp" />
            <source>{} records that lead from one to the next may be chance: they hold {} together</source>
            <translation>{} Sätze, die von einem zum nächsten führen, können Zufall sein: sie enthalten zusammen {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_names.cpp" />
            <source>names are known only by a hash of {} bytes; which one is a guess</source>
            <translation>Namen sind nur durch einen Hash von {} Byte bekannt; welcher, ist geraten</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_names.cpp" />
            <source>there are no names; entries are numbered</source>
            <translation>es gibt keine Namen; Einträge sind nummeriert</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_seen.cpp" />
            <source>bytes are the same most often at distances of {}</source>
            <translation>Bytes sind am häufigsten gleich in Abständen von {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_seen.cpp" />
            <source>mixed bytes</source>
            <translation>gemischte Bytes</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_seen.cpp" />
            <source>numbers</source>
            <translation>Zahlen</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_seen.cpp" />
            <source>packed or hidden bytes</source>
            <translation>gepackte oder versteckte Bytes</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_seen.cpp" />
            <source>text</source>
            <translation>text</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_seen.cpp" />
            <source>zeros</source>
            <translation>Nullen</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_seen.cpp" />
            <source>{} names one after the other at {}, the first is "{}"</source>
            <translation>{} Namen hintereinander bei {}, der erste ist „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_seen.cpp" />
            <source>{} shorter stretches between them</source>
            <translation>{} kürzere Strecken dazwischen</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_seen.cpp" />
            <source>{} to {}: {}, {:.1f} bits a byte</source>
            <translation>{} bis {}: {}, {:.1Lf} Bit je Byte</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_seen.cpp" />
            <source>{}{} bytes ({:.0f} %)</source>
            <translation>{}{} Byte ({:.0f} %)</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_sheet.cpp" />
            <source>Not sound, only a place to begin: {}.</source>
            <translation>Nicht verlässlich, nur ein Anfang: {}.</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_sheet.cpp" />
            <source>Sifting may find textures in it all the same. What can be seen:{}</source>
            <translation>Das Sieben findet vielleicht trotzdem Texturen darin. Was zu sehen ist:{}</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_sheet.cpp" />
            <source>a file of {} bytes is too small for a table</source>
            <translation>eine Datei von {} Byte ist zu klein für eine Tabelle</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_sheet.cpp" />
            <source>a name</source>
            <translation>ein Name</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_sheet.cpp" />
            <source>no name</source>
            <translation>kein Name</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_sheet.cpp" />
            <source>no table of entries could be found: no run of equal records has offsets and sizes that fit this file</source>
            <translation>keine Eintragstabelle zu finden: kein Lauf gleicher Sätze hat Orte und Größen, die zu dieser Datei passen</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_sheet.cpp" />
            <source>offsets</source>
            <translation>Orte</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_sheet.cpp" />
            <source>offsets and ends</source>
            <translation>Offsets und Enden</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_sheet.cpp" />
            <source>offsets and sizes</source>
            <translation>Orte und Größen</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_sheet.cpp" />
            <source>sizes</source>
            <translation>Größen</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_sheet.cpp" />
            <source>sizes in front of the data</source>
            <translation>Größen vor den Daten</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_sheet.cpp" />
            <source>{} records of {} and {} bytes of numbers at {}; {} that cover {} of {}</source>
            <translation>{} Sätze von {} und {} Byte Zahlen bei {}; {}, die {} von {} decken</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_write.cpp" />
            <source>Drafted from an example. What is called unknown keeps its bytes.</source>
            <translation>Nach einem Beispiel entworfen. Was unknown heißt, behält seine Bytes.</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_write.cpp" />
            <source>Drafted from an example: the whole file is hidden by a key that is repeated.</source>
            <translation>Nach einem Beispiel entworfen: die ganze Datei ist durch einen Schlüssel versteckt, der sich wiederholt.</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_write.cpp" />
            <source>no header field says where the table is; the example's place is written down</source>
            <translation>kein Feld im Kopf sagt, wo die Tabelle ist; die Stelle aus dem Beispiel ist aufgeschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/container/draft_write.cpp" />
            <source>the number of entries is not in the header; the example's is written down</source>
            <translation>die Zahl der Einträge steht nicht im Kopf; die aus dem Beispiel ist aufgeschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/container/folder.cpp" />
            <source>All parts must lie in one folder</source>
            <translation>Alle Teile müssen in einem Ordner liegen</translation>
        </message>
        <message>
            <location filename="../../../src/container/folder.cpp" />
            <source>being a folder</source>
            <translation>ein Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/container/folder.cpp" />
            <source>being one texture</source>
            <translation>eine einzelne Textur</translation>
        </message>
        <message>
            <location filename="../../../src/container/folder.cpp" />
            <source>single file</source>
            <translation>einzelne Datei</translation>
        </message>
        <message>
            <location filename="../../../src/container/folder.cpp" />
            <source>the part {} is not there</source>
            <translation>der Teil {} ist nicht da</translation>
        </message>
        <message>
            <location filename="../../../src/container/folder.cpp" />
            <source>there is something at "{}" already</source>
            <translation>bei „{}“ ist schon etwas</translation>
        </message>
        <message>
            <location filename="../../../src/container/folder.cpp" />
            <source>{} holds more than {} files</source>
            <translation>{} enthält mehr als {} Dateien</translation>
        </message>
        <message>
            <location filename="../../../src/container/folder.h" />
            <source>it is one file; nothing can be put beside it</source>
            <translation>es ist eine einzelne Datei; daneben lässt sich nichts legen</translation>
        </message>
        <message>
            <location filename="../../../src/container/kinds.cpp" />
            <source>A sheet can describe its layout; sifting finds textures in it without one</source>
            <translation>Ein Blatt kann seinen Aufbau beschreiben; das Sieben findet Texturen darin ohne eines</translation>
        </message>
        <message>
            <location filename="../../../src/container/kinds.cpp" />
            <source>no archive we know</source>
            <translation>kein bekanntes Archiv</translation>
        </message>
        <message>
            <location filename="../../../src/container/kinds.cpp" />
            <source>your choice for "{}"</source>
            <translation>deine Wahl für „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/container/libarchive_container.cpp" />
            <source>"CD001" in sector 16</source>
            <translation>„CD001“ in Sektor 16</translation>
        </message>
        <message>
            <location filename="../../../src/container/libarchive_container.cpp" />
            <source>A damaged archive is only read</source>
            <translation>Ein beschädigtes Archiv wird nur gelesen</translation>
        </message>
        <message>
            <location filename="../../../src/container/libarchive_container.cpp" />
            <source>Only 7z archives without encryption can be read</source>
            <translation>Nur 7z-Archive ohne Verschlüsselung sind lesbar</translation>
        </message>
        <message>
            <location filename="../../../src/container/libarchive_container.cpp" />
            <source>What follows is not listed</source>
            <translation>Was folgt, steht nicht in der Liste</translation>
        </message>
        <message>
            <location filename="../../../src/container/libarchive_container.cpp" />
            <source>a {} archive of {} unpacked is too large to be built anew</source>
            <translation>ein {}-Archiv von {} entpackt ist zu groß, um neu gebaut zu werden</translation>
        </message>
        <message>
            <location filename="../../../src/container/libarchive_container.cpp" />
            <source>an ISO 9660 image is only read</source>
            <translation>ein ISO-9660-Abbild wird nur gelesen</translation>
        </message>
        <message>
            <location filename="../../../src/container/libarchive_container.cpp" />
            <source>an encrypted 7z archive</source>
            <translation>ein verschlüsseltes 7z-Archiv</translation>
        </message>
        <message>
            <location filename="../../../src/container/libarchive_container.cpp" />
            <source>entry {}</source>
            <translation>Eintrag {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/libarchive_container.cpp" />
            <source>its entries are larger than it says</source>
            <translation>seine Einträge sind größer, als es sagt</translation>
        </message>
        <message>
            <location filename="../../../src/container/libarchive_container.cpp" />
            <source>libarchive gives no reason</source>
            <translation>libarchive nennt keinen Grund</translation>
        </message>
        <message>
            <location filename="../../../src/container/libarchive_container.cpp" />
            <source>the 7z signature</source>
            <translation>die Signatur von 7z</translation>
        </message>
        <message>
            <location filename="../../../src/container/libarchive_container.cpp" />
            <source>the archive ends early</source>
            <translation>das Archiv endet zu früh</translation>
        </message>
        <message>
            <location filename="../../../src/container/members.cpp" />
            <source>another entry is a hard link to it</source>
            <translation>ein anderer Eintrag ist fest mit ihm verknüpft</translation>
        </message>
        <message>
            <location filename="../../../src/container/overlaps.cpp" />
            <source>The first entry there can be read</source>
            <translation>Der erste Eintrag dort lässt sich lesen</translation>
        </message>
        <message>
            <location filename="../../../src/container/overlaps.cpp" />
            <source>it lies over bytes of other entries, and together they would unpack to more than the file can hold</source>
            <translation>er liegt über Bytes anderer Einträge, und zusammen ergäben sie entpackt mehr, als die Datei enthalten kann</translation>
        </message>
        <message>
            <location filename="../../../src/container/parts.cpp" />
            <source>{} is cut into parts; all of them must lie in one folder</source>
            <translation>{} ist in Teile geschnitten; alle müssen in einem Ordner liegen</translation>
        </message>
        <message>
            <location filename="../../../src/container/past_files.cpp" />
            <source>{} was not there</source>
            <translation>{} war nicht da</translation>
        </message>
        <message>
            <location filename="../../../src/container/past_files.cpp" />
            <source>{}: its parts are too large for memory</source>
            <translation>{}: seine Teile sind zu groß für den Speicher</translation>
        </message>
        <message>
            <location filename="../../../src/container/record_texture.cpp" />
            <source>Keep what the original has, or say in the sheet which field it is</source>
            <translation>Behalte, was das Original hat, oder sage im Blatt, welches Feld es ist</translation>
        </message>
        <message>
            <location filename="../../../src/container/record_texture.cpp" />
            <source>This entry takes a DDS or KTX2 file; its own can be exported as one</source>
            <translation>Dieser Eintrag nimmt eine DDS- oder KTX2-Datei; sein eigener lässt sich als eine exportieren</translation>
        </message>
        <message>
            <location filename="../../../src/container/record_texture.cpp" />
            <source>is no texture: {}</source>
            <translation>ist keine Textur: {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/record_texture.cpp" />
            <source>is {}, and the sheet has no number for it here; the original is {}</source>
            <translation>ist {}, und das Blatt hat hier keine Zahl dafür; das Original ist {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/record_texture.cpp" />
            <source>its {} is another, and no field of the record says it</source>
            <translation>sein {} ist anders, und kein Feld des Satzes sagt es</translation>
        </message>
        <message>
            <location filename="../../../src/container/record_texture.cpp" />
            <source>mip {}: is not in the file</source>
            <translation>Mip {}: ist nicht in der Datei</translation>
        </message>
        <message>
            <location filename="../../../src/container/record_texture.cpp" />
            <source>{} of levels are more than the limit</source>
            <translation>{} an Stufen sind mehr als erlaubt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_container.cpp" />
            <source>Look for the right key; if it is the right one, the file is damaged</source>
            <translation>Suche den richtigen Schlüssel; ist es der richtige, dann ist die Datei beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_container.cpp" />
            <source>Put it beside the index file</source>
            <translation>Lege sie neben die Indexdatei</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_container.cpp" />
            <source>The archive is damaged or was changed by a program that does not know its checksums</source>
            <translation>Das Archiv ist beschädigt oder wurde von einem Programm geändert, das seine Prüfsummen nicht kennt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_container.cpp" />
            <source>The entry is damaged, or the key is not the right one</source>
            <translation>Der Eintrag ist beschädigt, oder der Schlüssel ist nicht der richtige</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_container.cpp" />
            <source>The entry is damaged; other entries can still be used</source>
            <translation>Der Eintrag ist beschädigt; andere Einträge sind noch zu gebrauchen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_container.cpp" />
            <source>The key is not the right one, or the entry is damaged</source>
            <translation>Der Schlüssel ist nicht der richtige, oder der Eintrag ist beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_container.cpp" />
            <source>being chosen for it</source>
            <translation>das Blatt wurde dafür gewählt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_container.cpp" />
            <source>chunk {}</source>
            <translation>Stück {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_container.cpp" />
            <source>its tables, which explain every byte</source>
            <translation>seine Tabellen, die jedes Byte erklären</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_container.cpp" />
            <source>needs {} bytes of the stream, has {}</source>
            <translation>braucht {} Byte des Stroms, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_container.cpp" />
            <source>sheet "{}"</source>
            <translation>Blatt „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_container.cpp" />
            <source>the data file {} is not beside an archive inside an archive</source>
            <translation>die Datendatei {} liegt nicht neben einem Archiv in einem Archiv</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_container.cpp" />
            <source>the data file {} is not there</source>
            <translation>die Datendatei {} ist nicht da</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_container.cpp" />
            <source>the key "{}" does not open it: {}</source>
            <translation>der Schlüssel „{}“ öffnet es nicht: {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_container.cpp" />
            <source>{}, its tables</source>
            <translation>{}, seine Tabellen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_data.cpp" />
            <source>Add it to the key ring under this name</source>
            <translation>Hänge ihn unter diesem Namen an den Schlüsselbund</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_data.cpp" />
            <source>a chunk of {} bytes does not fit its size field</source>
            <translation>ein Stück von {} Byte passt nicht in sein Größenfeld</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_data.cpp" />
            <source>data in chunks needs its unpacked size</source>
            <translation>Daten in Stücken brauchen ihre entpackte Größe</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_data.cpp" />
            <source>field {}: chunks of {} bytes</source>
            <translation>Feld {}: Stücke von {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_data.cpp" />
            <source>is encrypted; the key "{}" is not in the key ring</source>
            <translation>ist verschlüsselt; der Schlüssel „{}“ ist nicht am Schlüsselbund</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_data.cpp" />
            <source>the key "{}" has {} bytes, the cipher wants {}</source>
            <translation>der Schlüssel „{}“ hat {} Byte, das Verfahren will {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_data.cpp" />
            <source>the key in field {} has {} bytes</source>
            <translation>der Schlüssel in Feld {} hat {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_data.cpp" />
            <source>the stream does not begin with {}</source>
            <translation>der Strom beginnt nicht mit {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_data.cpp" />
            <source>{} chunk sizes do not lie in {} bytes</source>
            <translation>{} Stückgrößen liegen nicht in {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>"{}" would be known by its hash alone; let the program know the path first</source>
            <translation>„{}“ wäre nur durch seinen Hash bekannt; lass das Programm erst den Pfad wissen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>"{}" would have other data</source>
            <translation>„{}“ hätte andere Daten</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>"{}" would lie over bytes that other entries claim</source>
            <translation>„{}“ läge auf Bytes, die andere Einträge beanspruchen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>"{}" would not be there</source>
            <translation>„{}“ wäre nicht da</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>behind them lie bytes the sheet does not explain</source>
            <translation>dahinter liegen Bytes, die das Blatt nicht erklärt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>behind them lie the {}</source>
            <translation>dahinter liegen {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>behind them lies data that may not move</source>
            <translation>dahinter liegen Daten, die nicht wandern dürfen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>data behind them is encrypted by its place</source>
            <translation>Daten dahinter sind nach ihrer Lage verschlüsselt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>data behind them overlaps them</source>
            <translation>Daten dahinter überlappen sie</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>data is counted from the end of a table</source>
            <translation>Daten werden vom Ende einer Tabelle an gezählt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>entries between others make folders</source>
            <translation>Einträge zwischen anderen bilden Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>folders count the entries</source>
            <translation>Ordner zählen die Einträge</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>it is cut into parts</source>
            <translation>es ist in Teile geschnitten</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>its data is counted from "{}", which would have to change</source>
            <translation>ihre Daten zählen ab „{}“, das sich ändern müsste</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>its tables have no room for more: {}</source>
            <translation>in ihren Tabellen ist kein Platz für mehr: {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>names are counted</source>
            <translation>Namen sind gezählt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>padding in a record depends on its place</source>
            <translation>das Auffüllen in einem Satz hängt von seiner Lage ab</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>something lies between the records and their names</source>
            <translation>zwischen den Sätzen und ihren Namen liegt etwas</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>the data of all entries is one stream</source>
            <translation>die Daten aller Einträge sind ein Strom</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>the entries go on to where the data begins, which would have to move</source>
            <translation>die Einträge reichen bis zum Anfang der Daten, die weichen müssten</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>the header is at the file's end</source>
            <translation>der Kopf steht am Ende der Datei</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>the header says how long all data is</source>
            <translation>der Kopf sagt, wie lang alle Daten sind</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>the number of entries is fixed</source>
            <translation>die Zahl der Einträge steht fest</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>the tables of a {} cannot be made longer or shorter: {}</source>
            <translation>die Tabellen eines {} lassen sich nicht länger oder kürzer machen: {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>their names make a tree</source>
            <translation>ihre Namen bilden einen Baum</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>their records are columns</source>
            <translation>ihre Sätze sind Spalten</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>their records lie in folders</source>
            <translation>ihre Sätze liegen in Ordnern</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>there would be entries nobody wanted</source>
            <translation>es gäbe Einträge, die niemand wollte</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>they are encrypted, and names are apart from the records</source>
            <translation>sie sind verschlüsselt, und Namen liegen getrennt von den Sätzen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>they are packed</source>
            <translation>sie sind gepackt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>what lies behind them is too large to be moved</source>
            <translation>was dahinter liegt, ist zu groß zum Verschieben</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>what the sheet {} says is not enough to change its entries: {}</source>
            <translation>was das Blatt {} sagt, reicht nicht, um seine Einträge zu ändern: {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries.cpp" />
            <source>where data lies follows from the order of the entries</source>
            <translation>wo Daten liegen, folgt aus der Reihenfolge der Einträge</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries_records.cpp" />
            <source>"{}" is longer than a length of {} bytes can say</source>
            <translation>„{}“ ist länger, als eine Länge von {} Byte sagen kann</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries_records.cpp" />
            <source>"{}" is longer than the {} bytes that names have in a {}</source>
            <translation>„{}“ ist länger als die {} Byte, die Namen in einem {} haben</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries_records.cpp" />
            <source>Choose a shorter name</source>
            <translation>Wähle einen kürzeren Namen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries_records.cpp" />
            <source>Name the field that does in the sheet</source>
            <translation>Nenne im Blatt das Feld, das es tut</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries_records.cpp" />
            <source>Say it in the sheet</source>
            <translation>Sage es im Blatt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries_records.cpp" />
            <source>data is encrypted with the number of its entry, which would become another</source>
            <translation>Daten sind mit der Nummer ihres Eintrags verschlüsselt, die eine andere würde</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries_records.cpp" />
            <source>nothing says where the names end</source>
            <translation>nichts sagt, wo die Namen enden</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries_records.cpp" />
            <source>the archive has no entry yet, so nothing says how the record of a new one looks</source>
            <translation>das Archiv hat noch keinen Eintrag, also sagt nichts, wie der Satz eines neuen aussieht</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries_records.cpp" />
            <source>the archive has no names yet</source>
            <translation>das Archiv hat noch keine Namen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries_records.cpp" />
            <source>the names lie otherwise than the sheet says</source>
            <translation>die Namen liegen anders, als das Blatt sagt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries_records.cpp" />
            <source>the sheet does not say how names are hashed</source>
            <translation>das Blatt sagt nicht, wie der Hash der Namen gebildet wird</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_entries_records.cpp" />
            <source>the sheet does not say which name an entry has</source>
            <translation>das Blatt sagt nicht, welchen Namen ein Eintrag hat</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_extents.cpp" />
            <source>Remove that entry first, or get the archive whole</source>
            <translation>Nimm zuerst diesen Eintrag heraus, oder hole dir das Archiv vollständig</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_extents.cpp" />
            <source>a chunk of {} bytes</source>
            <translation>ein Stück von {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_extents.cpp" />
            <source>an entry that ends nowhere</source>
            <translation>ein Eintrag, der nirgends endet</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_extents.cpp" />
            <source>ends before it begins</source>
            <translation>endet, bevor er beginnt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_extents.cpp" />
            <source>entry {} ends before it begins</source>
            <translation>Eintrag {} endet, bevor er beginnt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_extents.cpp" />
            <source>entry {} needs {} bytes, only {} are there</source>
            <translation>Eintrag {} braucht {} Byte, nur {} sind da</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_extents.cpp" />
            <source>needs {} bytes, has {}, and what is added would come to lie in it</source>
            <translation>braucht {} Byte, hat {}, und was dazukommt, läge darin</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_extents.cpp" />
            <source>table of chunks</source>
            <translation>Tabelle der Stücke</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_extents.cpp" />
            <source>the table of chunks lies behind the end</source>
            <translation>die Tabelle der Stücke liegt hinter dem Ende</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>The folders' counts are damaged, or the sheet takes something else for them</source>
            <translation>Die Anzahlen der Ordner sind beschädigt, oder das Blatt hält etwas anderes dafür</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>The game looks entries up by the hash and will not find this one</source>
            <translation>Das Spiel sucht Einträge über den Hash und wird diesen nicht finden</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>a first entry by number needs records of a fixed size</source>
            <translation>ein erster Eintrag nach Nummer braucht Sätze fester Größe</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>a first entry {}</source>
            <translation>ein erster Eintrag {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>chunk</source>
            <translation>Stück</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>chunks</source>
            <translation>Stücke</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>entries</source>
            <translation>Einträge</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>entry</source>
            <translation>Eintrag</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>folder {}</source>
            <translation>Ordner {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>folders</source>
            <translation>Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>is said to begin at {} and to end at {}</source>
            <translation>soll bei {} beginnen und bei {} enden</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>names behind records of varying size need a header field that says where they are</source>
            <translation>Namen hinter Sätzen wechselnder Größe brauchen ein Kopffeld, das sagt, wo sie sind</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>names behind records without a count need a header field that says where they are</source>
            <translation>Namen hinter Sätzen ohne Anzahl brauchen ein Kopffeld, das sagt, wo sie sind</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>the directory is said to begin behind the end</source>
            <translation>das Verzeichnis soll hinter dem Ende beginnen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>the directory is said to have {} bytes, its records take {}</source>
            <translation>das Verzeichnis soll {} Byte haben, seine Sätze nehmen {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>the directory is said to have {} bytes, only {} are there</source>
            <translation>das Verzeichnis soll {} Byte haben, nur {} sind da</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>the folders share more than {} entries</source>
            <translation>die Ordner teilen sich mehr als {} Einträge</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>the hash of its name is {:0{}x}, the field says {:0{}x}</source>
            <translation>der Hash seines Namens ist {:0{}x}, das Feld sagt {:0{}x}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>the last record</source>
            <translation>der letzte Satz</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>too many folders</source>
            <translation>zu viele Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>{} entries in {} bytes</source>
            <translation>{} Einträge in {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>{} folders are said to be there, {} are</source>
            <translation>{} Ordner sollen da sein, {} sind es</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>{} is said to be behind the end of {} bytes</source>
            <translation>{} soll hinter dem Ende von {} Byte liegen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>{} records of {} bytes do not lie in {} bytes</source>
            <translation>{} Sätze von {} Byte liegen nicht in {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>{} {} in {} bytes</source>
            <translation>{} {} in {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_lister.cpp" />
            <source>{}: {} bytes before the end of {} bytes</source>
            <translation>{}: {} Byte vor dem Ende von {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_names.cpp" />
            <source>the name is said to lie behind the names</source>
            <translation>der Name soll hinter den Namen liegen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_names.cpp" />
            <source>the names are said to have {} bytes, only {} are there</source>
            <translation>die Namen sollen {} Byte haben, nur {} sind da</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_names.cpp" />
            <source>there is no name {}</source>
            <translation>es gibt keinen Namen {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_plan.cpp" />
            <source>An archive with a damaged entry cannot be laid out anew</source>
            <translation>Ein Archiv mit einem beschädigten Eintrag lässt sich nicht neu anordnen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_plan.cpp" />
            <source>Say in the sheet what they are</source>
            <translation>Sage im Blatt, was sie sind</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_plan.cpp" />
            <source>overlaps another entry, so the archive cannot be laid out anew</source>
            <translation>überschneidet sich mit einem anderen Eintrag, also lässt sich das Archiv nicht neu anordnen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_plan.cpp" />
            <source>the archive has no chunk yet, so nothing says how a new one is written</source>
            <translation>das Archiv hat noch kein Stück, also sagt nichts, wie ein neues geschrieben wird</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_plan.cpp" />
            <source>the packed directory changes its size with each try, and nothing says where it is</source>
            <translation>das gepackte Verzeichnis ändert bei jedem Versuch seine Größe, und nichts sagt, wo es ist</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_plan.cpp" />
            <source>would have to move, but bytes the sheet does not explain lie before it</source>
            <translation>müsste weichen, aber davor liegen Bytes, die das Blatt nicht erklärt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_plan_chunks.cpp" />
            <source>chunks share bytes, so they cannot be laid out anew</source>
            <translation>Stücke teilen Bytes, also lassen sie sich nicht neu anordnen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_plan_chunks.cpp" />
            <source>more chunks are needed, and no field says how many there are</source>
            <translation>es braucht mehr Stücke, und kein Feld sagt, wie viele es sind</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_plan_chunks.cpp" />
            <source>the table of chunks is in a packed directory and would have to grow</source>
            <translation>die Tabelle der Stücke steht in einem gepackten Verzeichnis und müsste wachsen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_plan_tables.cpp" />
            <source>Data cut into parts of a fixed size takes only content that fits where the old one is</source>
            <translation>In Teile fester Größe geschnittene Daten nehmen nur Inhalt, der an die Stelle des alten passt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_plan_tables.cpp" />
            <source>has room for {} bytes, needs {}</source>
            <translation>hat Platz für {} Byte, braucht {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_plan_tables.cpp" />
            <source>its data is counted from "{}", which would have to move</source>
            <translation>ihre Daten zählen ab „{}“, das weichen müsste</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_plan_tables.cpp" />
            <source>the packed directory has no room for more</source>
            <translation>das gepackte Verzeichnis hat keinen Platz für mehr</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>; every byte is explained</source>
            <translation>; jedes Byte ist erklärt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>; {} bytes are not explained, and stayed where they belong</source>
            <translation>; {} Byte sind nicht erklärt und blieben, wo sie hingehören</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>A field has a meaning the sheet does not say</source>
            <translation>Ein Feld hat eine Bedeutung, die das Blatt nicht sagt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>It is tried all the same</source>
            <translation>Es wird trotzdem versucht</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>Try it on a smaller archive of the same layout</source>
            <translation>Versuche es an einem kleineren Archiv desselben Aufbaus</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>a texture has the length its sides call for</source>
            <translation>eine Textur hat die Länge, die ihre Seiten verlangen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>all</source>
            <translation>alle</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>bytes the sheet does not explain were changed or dropped</source>
            <translation>Bytes, die das Blatt nicht erklärt, wurden geändert oder fielen weg</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>cannot copy the archive</source>
            <translation>das Archiv kann nicht kopiert werden</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>cannot make a temporary folder</source>
            <translation>ein vorläufiger Ordner kann nicht angelegt werden</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>does not read back as it was written</source>
            <translation>liest sich nicht zurück, wie es geschrieben wurde</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>entry {} ({})</source>
            <translation>Eintrag {} ({})</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>entry {} changed with it</source>
            <translation>Eintrag {} änderte sich mit</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>made longer</source>
            <translation>verlängert</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>put back</source>
            <translation>zurückgelegt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>the conditions of [[recognize]] do not hold</source>
            <translation>die Bedingungen von [[recognize]] gelten nicht</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>{} are too much to copy for a proof</source>
            <translation>{} sind zu viel, um sie für einen Beweis zu kopieren</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>{} bytes</source>
            <translation>{} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>{} of {} entries were changed and put back in a copy, {} made longer, too</source>
            <translation>{} von {} Einträgen wurden in einer Kopie geändert und zurückgelegt, {} auch verlängert</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_try.cpp" />
            <source>{}, in the unpacked directory</source>
            <translation>{}, im ausgepackten Verzeichnis</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_wrapper.cpp" />
            <source>The file is damaged</source>
            <translation>Die Datei ist beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_wrapper.cpp" />
            <source>The key is not the right one, or the file is damaged</source>
            <translation>Der Schlüssel ist nicht der richtige, oder die Datei ist beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_wrapper.cpp" />
            <source>the data is said to begin behind the end of the file</source>
            <translation>die Daten sollen hinter dem Ende der Datei beginnen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sheet_wrapper.cpp" />
            <source>your choice</source>
            <translation>deine Wahl</translation>
        </message>
        <message>
            <location filename="../../../src/container/sift.cpp" />
            <source>inside a stream, </source>
            <translation>in einem Strom, </translation>
        </message>
        <message>
            <location filename="../../../src/container/sift.cpp" />
            <source>sifting</source>
            <translation>Sieben</translation>
        </message>
        <message>
            <location filename="../../../src/container/sift.cpp" />
            <source>{}{:#x} to {:#x}: too much begins like a stream or a hidden header and is none; the rest there was looked at only for textures</source>
            <translation>{}{:#x} bis {:#x}: zu viel beginnt wie ein Strom oder ein verdeckter Kopf und ist keiner; der Rest wurde nur nach Texturen durchgesehen</translation>
        </message>
        <message>
            <location filename="../../../src/container/sifted_container.cpp" />
            <source>A sheet that describes the archive can write the size as well</source>
            <translation>Ein Blatt, das das Archiv beschreibt, kann auch die Größe schreiben</translation>
        </message>
        <message>
            <location filename="../../../src/container/sifted_container.cpp" />
            <source>Content that packs as well as the old one fits; fewer new details, for example</source>
            <translation>Inhalt, der sich so gut packt wie der alte, passt; etwa weniger neue Einzelheiten</translation>
        </message>
        <message>
            <location filename="../../../src/container/sifted_container.cpp" />
            <source>What sifting finds can only be replaced by something of the same size: keep format, size and mips</source>
            <translation>Was das Sieben findet, kann nur durch etwas gleicher Größe ersetzt werden: behalte Format, Größe und Mips</translation>
        </message>
        <message>
            <location filename="../../../src/container/sifted_container.cpp" />
            <source>being sifted</source>
            <translation>gesiebt</translation>
        </message>
        <message>
            <location filename="../../../src/container/sifted_container.cpp" />
            <source>has {} bytes, the new content {}</source>
            <translation>hat {} Byte, der neue Inhalt {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/sifted_container.cpp" />
            <source>the {} block takes {} bytes now and has to take just {}: its size stands before it</source>
            <translation>der {}-Block nimmt jetzt {} Byte und darf nur {} nehmen: seine Größe steht davor</translation>
        </message>
        <message>
            <location filename="../../../src/container/sifted_container.cpp" />
            <source>the {} stream takes {} bytes now, its place has {}</source>
            <translation>der {}-Strom nimmt jetzt {} Byte, sein Platz hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/tar.cpp" />
            <source>"ustar" at 257 and a header whose checksum holds</source>
            <translation>„ustar“ bei 257 und ein Kopf, dessen Prüfsumme stimmt</translation>
        </message>
        <message>
            <location filename="../../../src/container/tar.cpp" />
            <source>Leave one entry, or remove the file</source>
            <translation>Lass einen Eintrag übrig, oder entferne die Datei</translation>
        </message>
        <message>
            <location filename="../../../src/container/tar.cpp" />
            <source>The archive is cut off</source>
            <translation>Das Archiv ist abgeschnitten</translation>
        </message>
        <message>
            <location filename="../../../src/container/tar.cpp" />
            <source>The archive is damaged here</source>
            <translation>Das Archiv ist hier beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/container/tar.cpp" />
            <source>a first block whose checksum holds, and its name</source>
            <translation>ein erster Block, dessen Prüfsumme stimmt, und der Name</translation>
        </message>
        <message>
            <location filename="../../../src/container/tar.cpp" />
            <source>a tar with nothing in it is none any more</source>
            <translation>ein tar, in dem nichts ist, ist keines mehr</translation>
        </message>
        <message>
            <location filename="../../../src/container/tar.cpp" />
            <source>an extended header of more than 1 MB</source>
            <translation>ein erweiterter Kopf von mehr als 1 MB</translation>
        </message>
        <message>
            <location filename="../../../src/container/tar.cpp" />
            <source>header {}</source>
            <translation>Kopf {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/tar.cpp" />
            <source>its checksum does not hold</source>
            <translation>seine Prüfsumme stimmt nicht</translation>
        </message>
        <message>
            <location filename="../../../src/container/tar.cpp" />
            <source>its checksum does not hold; what follows is not listed</source>
            <translation>seine Prüfsumme stimmt nicht; was folgt, steht nicht in der Liste</translation>
        </message>
        <message>
            <location filename="../../../src/container/tar.cpp" />
            <source>its size is too large</source>
            <translation>seine Größe ist zu groß</translation>
        </message>
        <message>
            <location filename="../../../src/container/tar.cpp" />
            <source>no tar header</source>
            <translation>kein tar-Kopf</translation>
        </message>
        <message>
            <location filename="../../../src/container/tar.cpp" />
            <source>the new size has more digits than its pax header has room for</source>
            <translation>die neue Größe hat mehr Ziffern, als sein pax-Kopf Platz hat</translation>
        </message>
        <message>
            <location filename="../../../src/container/texture_files.cpp" />
            <source>there is no {}</source>
            <translation>es gibt kein {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/wrapped.cpp" />
            <source>a header that could be {}, and its name</source>
            <translation>ein Kopf, der {} sein könnte, und sein Name</translation>
        </message>
        <message>
            <location filename="../../../src/container/wrapped.cpp" />
            <source>a {} holds one file; nothing can be put beside it</source>
            <translation>ein {} enthält eine Datei; nichts kann daneben gelegt werden</translation>
        </message>
        <message>
            <location filename="../../../src/container/wrapped.cpp" />
            <source>no packed stream we know</source>
            <translation>kein bekannter gepackter Strom</translation>
        </message>
        <message>
            <location filename="../../../src/container/wrapped.cpp" />
            <source>packed file</source>
            <translation>gepackte Datei</translation>
        </message>
        <message>
            <location filename="../../../src/container/wrapped.cpp" />
            <source>the mark of {} at its beginning</source>
            <translation>das Zeichen von {} an seinem Anfang</translation>
        </message>
        <message>
            <location filename="../../../src/container/wrapped.cpp" />
            <source>too many wrappers around one another</source>
            <translation>zu viele Hüllen umeinander</translation>
        </message>
        <message>
            <location filename="../../../src/container/wrapped.cpp" />
            <source>{} in {}</source>
            <translation>{} in {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/wrapped.cpp" />
            <source>{}, and inside it {}</source>
            <translation>{}, und darin {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/write_plan.cpp" />
            <source>Join the parts into one file and use that</source>
            <translation>Füge die Teile zu einer Datei zusammen und nimm diese</translation>
        </message>
        <message>
            <location filename="../../../src/container/write_plan.cpp" />
            <source>an archive cut into parts cannot be built anew</source>
            <translation>ein in Teile geschnittenes Archiv lässt sich nicht neu bauen</translation>
        </message>
        <message>
            <location filename="../../../src/container/write_plan.cpp" />
            <source>the archive would become shorter than its parts</source>
            <translation>das Archiv würde kürzer als seine Teile</translation>
        </message>
        <message>
            <location filename="../../../src/container/write_plan.cpp" />
            <source>the plan reads past the end of the file</source>
            <translation>der Plan liest über das Ende der Datei hinaus</translation>
        </message>
        <message>
            <location filename="../../../src/container/write_plan.cpp" />
            <source>the plan writes past the end of the file</source>
            <translation>der Plan schreibt über das Ende der Datei hinaus</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>, {} parts</source>
            <translation>, {} Teile</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>CRC-32 is {:08x}, the directory says {:08x}</source>
            <translation>CRC-32 ist {:08x}, das Verzeichnis sagt {:08x}</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>Entries of this method cannot be replaced</source>
            <translation>Einträge dieses Verfahrens lassen sich nicht ersetzen</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>Put name.z01, name.z02 … beside name.zip</source>
            <translation>Lege name.z01, name.z02 … neben name.zip</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>Some programs write the same content once for several names; if it is not that, the directory is damaged</source>
            <translation>Manche Programme schreiben gleichen Inhalt für mehrere Namen nur einmal; ist es nicht das, dann ist das Verzeichnis beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>Stored, deflate, bzip2, LZMA, Zstandard and XZ entries can be read</source>
            <translation>Ungepackte, Deflate-, bzip2-, LZMA-, Zstandard- und XZ-Einträge sind lesbar</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>The archive is damaged here; other entries can still be used</source>
            <translation>Das Archiv ist hier beschädigt; andere Einträge sind noch zu gebrauchen</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>The file is cut off or no ZIP archive</source>
            <translation>Die Datei ist abgeschnitten oder kein ZIP-Archiv</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>a directory of {}</source>
            <translation>ein Verzeichnis von {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>a local header at its beginning</source>
            <translation>ein lokaler Kopf am Anfang</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>an end record at its end</source>
            <translation>ein Endsatz am Ende</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>central directory</source>
            <translation>Zentralverzeichnis</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>its ZIP64 field is too short</source>
            <translation>sein ZIP64-Feld ist zu kurz</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>its data is said to be at {}, behind the directory</source>
            <translation>seine Daten sollen bei {} liegen, hinter dem Verzeichnis</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>its end record at {}</source>
            <translation>sein Endsatz bei {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>lies in part {} of {}</source>
            <translation>liegt in Teil {} von {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>local header: needs {} bytes, has {}</source>
            <translation>lokaler Kopf: braucht {} Byte, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>no ZIP end record</source>
            <translation>kein ZIP-Endsatz</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>no directory record where one must be</source>
            <translation>kein Verzeichnissatz, wo einer sein muss</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>no local header where the directory points</source>
            <translation>kein lokaler Kopf, wohin das Verzeichnis zeigt</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>packed with method {} ({})</source>
            <translation>gepackt mit Verfahren {} ({})</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>the ZIP64 end record is not where its locator points</source>
            <translation>der ZIP64-Endsatz ist nicht, wohin sein Zeiger zeigt</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>the directory is said to be at {} of part {}</source>
            <translation>das Verzeichnis soll bei {} von Teil {} liegen</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>the directory is said to be at {}, behind its end record</source>
            <translation>das Verzeichnis soll bei {} liegen, hinter seinem Endsatz</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>the directory is said to have {} bytes, only {} lie before it</source>
            <translation>das Verzeichnis soll {} Byte haben, nur {} liegen davor</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>the lzma stream ends early</source>
            <translation>der lzma-Strom endet zu früh</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>this is the last of {} parts, {} of them are here</source>
            <translation>das ist der letzte von {} Teilen, {} davon sind hier</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>too short for a ZIP archive</source>
            <translation>zu kurz für ein ZIP-Archiv</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>{} entries cannot lie in a directory of {} bytes</source>
            <translation>{} Einträge können nicht in einem Verzeichnis von {} Byte liegen</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip.cpp" />
            <source>{} entries lie over bytes of others</source>
            <translation>{} Einträge liegen über Bytes von anderen</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_compact.cpp" />
            <source>Join the parts with a ZIP program first</source>
            <translation>Füge die Teile erst mit einem ZIP-Programm zusammen</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_compact.cpp" />
            <source>an archive split over several files cannot be built anew</source>
            <translation>ein über mehrere Dateien verteiltes Archiv lässt sich nicht neu bauen</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_compact.cpp" />
            <source>reaches into the directory</source>
            <translation>reicht in das Verzeichnis</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_crypt.cpp" />
            <source>Add the archive's password to the key ring</source>
            <translation>Hänge das Passwort des Archivs an den Schlüsselbund</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_crypt.cpp" />
            <source>Add the right password to the key ring</source>
            <translation>Hänge das richtige Passwort an den Schlüsselbund</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_crypt.cpp" />
            <source>The entry is damaged, or the key is wrong; other entries can still be used</source>
            <translation>Der Eintrag ist beschädigt, oder der Schlüssel ist falsch; andere Einträge sind noch zu gebrauchen</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_crypt.cpp" />
            <source>Traditional and AES encryption with a password can be read</source>
            <translation>Herkömmliche und AES-Verschlüsselung mit Passwort sind lesbar</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_crypt.cpp" />
            <source>its AES field does not hold</source>
            <translation>sein AES-Feld stimmt nicht</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_crypt.cpp" />
            <source>its authentication code does not hold</source>
            <translation>sein Echtheitscode stimmt nicht</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_crypt.cpp" />
            <source>none of the {} keys opens the entry</source>
            <translation>keiner der {} Schlüssel öffnet den Eintrag</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_crypt.cpp" />
            <source>the entry has certificate-based encryption</source>
            <translation>der Eintrag ist mit einem Zertifikat verschlüsselt</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_crypt.cpp" />
            <source>the entry is encrypted and there is no key</source>
            <translation>der Eintrag ist verschlüsselt, und es gibt keinen Schlüssel</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_crypt.cpp" />
            <source>the key "{}" does not open the entry</source>
            <translation>der Schlüssel „{}“ öffnet den Eintrag nicht</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_crypt.cpp" />
            <source>too short for an encrypted entry</source>
            <translation>zu kurz für einen verschlüsselten Eintrag</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_crypt.cpp" />
            <source>{}, or it is damaged: {}</source>
            <translation>{}, oder es ist beschädigt: {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_plan.cpp" />
            <source>Make several</source>
            <translation>Mache mehrere</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_plan.cpp" />
            <source>Name another one it is like</source>
            <translation>Nenne einen anderen, dem er gleicht</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_plan.cpp" />
            <source>a name of more than 65,535 bytes</source>
            <translation>ein Name von mehr als 65.535 Byte</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_plan.cpp" />
            <source>a patch archive of more than 65,534 entries or 3.7 GB</source>
            <translation>ein Patch-Archiv von mehr als 65.534 Einträgen oder 3,7 GB</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_plan.cpp" />
            <source>an archive split over several files takes only content that packs to the same size</source>
            <translation>ein über mehrere Dateien verteiltes Archiv nimmt nur Inhalt, der sich auf dieselbe Größe packt</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_plan.cpp" />
            <source>packed with method {}</source>
            <translation>gepackt mit Verfahren {}</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_plan.cpp" />
            <source>the archive was written by another program while it was looked at</source>
            <translation>das Archiv wurde von einem anderen Programm geschrieben, während es angesehen wurde</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_plan.cpp" />
            <source>the new content is larger than the limit</source>
            <translation>der neue Inhalt ist größer als erlaubt</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_plan.cpp" />
            <source>what stands between the directory and its end would be taken for the directory</source>
            <translation>was zwischen dem Verzeichnis und seinem Ende steht, würde für das Verzeichnis gehalten</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_rescue.cpp" />
            <source>They can be taken out; nothing can be put in</source>
            <translation>Sie lassen sich herausholen; hineinlegen lässt sich nichts</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_rescue.cpp" />
            <source>more than {} local headers</source>
            <translation>mehr als {} lokale Köpfe</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_rescue.cpp" />
            <source>the archive's directory is damaged, so it can only be read</source>
            <translation>das Verzeichnis des Archivs ist beschädigt, deshalb lässt es sich nur lesen</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_rescue.cpp" />
            <source>the central directory cannot be used ({}); {} entries were found by their own headers</source>
            <translation>das Zentralverzeichnis ist nicht zu gebrauchen ({}); {} Einträge wurden an ihren eigenen Köpfen gefunden</translation>
        </message>
        <message>
            <location filename="../../../src/container/zip_rescue.cpp" />
            <source>{} local headers; its directory is damaged</source>
            <translation>{} lokale Köpfe; sein Verzeichnis ist beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/beside.cpp" />
            <source>"{}" is no path for a loose file</source>
            <translation>„{}“ ist kein Pfad für eine lose Datei</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/beside.cpp" />
            <source>"{}" lies in an archive inside the archive</source>
            <translation>„{}“ liegt in einem Archiv im Archiv</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/beside.cpp" />
            <source>Choose another name, or deliver into it</source>
            <translation>Wähle einen anderen Namen, oder liefere hinein</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/beside.cpp" />
            <source>Deliver one of them into its archive</source>
            <translation>Liefere eines davon in sein Archiv</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/beside.cpp" />
            <source>Deliver this piece into its archive</source>
            <translation>Liefere dieses Stück in sein Archiv</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/beside.cpp" />
            <source>Restore the archive or undo the delivery</source>
            <translation>Stelle das Archiv wieder her, oder nimm die Lieferung zurück</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/beside.cpp" />
            <source>two pieces would be the loose file "{}"</source>
            <translation>zwei Stücke wären die lose Datei „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/beside.cpp" />
            <source>{} has {} names (hard links); only this one gets the new content</source>
            <translation>{} hat {} Namen (feste Verknüpfungen); nur dieser bekommt den neuen Inhalt</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/beside.cpp" />
            <source>{} keeps its data in {} as well, so one entry alone cannot be put back</source>
            <translation>{} hat seine Daten auch in {}, also kann ein einzelner Eintrag nicht zurückgelegt werden</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>4294967295 is what FAT32 holds</source>
            <translation>4294967295 ist, was FAT32 fasst</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>Deliver it into the archives, or change the layout of the device's files</source>
            <translation>Liefere es in die Archive, oder ändere die Anordnung der Dateien des Geräts</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>Let the device's files be larger</source>
            <translation>Lass die Dateien des Geräts größer sein</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>Look at the plan again</source>
            <translation>Sieh dir den Plan noch einmal an</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>Undo the deliveries to the card and deliver everything at once, or let its files be larger</source>
            <translation>Nimm die Lieferungen auf die Karte zurück und liefere alles auf einmal, oder lass ihre Dateien größer sein</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>Write .{nn} or .{nnn}</source>
            <translation>Schreibe .{nn} oder .{nnn}</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>a card cannot hold the name "{}": {}</source>
            <translation>eine Karte kann den Namen „{}“ nicht fassen: {}</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>files of at most {} bytes are too small for a card</source>
            <translation>Dateien von höchstens {} Byte sind zu klein für eine Karte</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>it ends in a point or a space</source>
            <translation>er endet mit einem Punkt oder Leerzeichen</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>it has a control character</source>
            <translation>er hat ein Steuerzeichen</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>it has a {}</source>
            <translation>er hat ein {}</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>it is longer than {}</source>
            <translation>er ist länger als {}</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>parts with names like x{} would not be known again</source>
            <translation>Teile mit Namen wie x{} würden nicht wiedererkannt</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>{} changed since the plan was made</source>
            <translation>{} hat sich geändert, seit der Plan gemacht wurde</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>{} would be cut into more than {} parts</source>
            <translation>{} würde in mehr als {} Teile geschnitten</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/device.cpp" />
            <source>{} would have {} bytes, and the card holds {} in a file</source>
            <translation>{} hätte {} Byte, und die Karte fasst {} in einer Datei</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/files.cpp" />
            <source>cannot change the size of {}</source>
            <translation>die Größe von {} kann nicht geändert werden</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/files.cpp" />
            <source>cannot create {}</source>
            <translation>{} kann nicht angelegt werden</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/files.cpp" />
            <source>cannot open {} for writing</source>
            <translation>{} kann nicht zum Schreiben geöffnet werden</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/files.cpp" />
            <source>cannot remove the folder {}</source>
            <translation>der Ordner {} kann nicht entfernt werden</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/files.cpp" />
            <source>cannot remove {}</source>
            <translation>{} kann nicht entfernt werden</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/files.cpp" />
            <source>cannot rename {}</source>
            <translation>{} kann nicht umbenannt werden</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/files.cpp" />
            <source>cannot set the permissions of {}</source>
            <translation>die Rechte von {} können nicht gesetzt werden</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/files.cpp" />
            <source>cannot sync {}</source>
            <translation>{} kann nicht gesichert werden</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/files.cpp" />
            <source>cannot write {}: nothing is taken any more</source>
            <translation>{} kann nicht geschrieben werden: nichts wird mehr angenommen</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/files.cpp" />
            <source>{} ends early</source>
            <translation>{} endet zu früh</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/in_use.cpp" />
            <source> and {} more</source>
            <translation> und {} weitere</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/journal.cpp" />
            <source>the journal is not complete</source>
            <translation>das Journal ist nicht vollständig</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/past.cpp" />
            <source>Undo the deliveries into it instead</source>
            <translation>Nimm stattdessen die Lieferungen hinein zurück</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/past.cpp" />
            <source>Undo the deliveries, or take the file as it is for new</source>
            <translation>Nimm die Lieferungen zurück, oder nimm die Datei, wie sie ist, als neu</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/past.cpp" />
            <source>a journal reads past the end of its file</source>
            <translation>ein Journal liest hinter das Ende seiner Datei</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/past.cpp" />
            <source>the ranges of a journal overlap</source>
            <translation>die Bereiche eines Journals überschneiden sich</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/past.cpp" />
            <source>{} of {} are too much to put together in memory</source>
            <translation>{} von {} sind zu viel, um sie im Speicher zusammenzusetzen</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/past.cpp" />
            <source>{} was changed by something else since "{}"</source>
            <translation>{} wurde seit „{}“ von etwas anderem geändert</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/recovery.cpp" />
            <source>"{}" was cut short, and something else has changed {} since, so it is left as it is</source>
            <translation>„{}“ wurde unterbrochen, und etwas anderes hat {} seitdem geändert, also bleibt es, wie es ist</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/recovery.cpp" />
            <source>Something else changed it</source>
            <translation>Etwas anderes hat es geändert</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/recovery.cpp" />
            <source>The disk that holds the vault may be failing</source>
            <translation>Die Platte mit dem Tresor ist vielleicht defekt</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/recovery.cpp" />
            <source>The old bytes are kept in {}; remove that folder when the archive is as you want it</source>
            <translation>Die alten Bytes liegen in {}; entferne diesen Ordner, wenn das Archiv ist, wie du es willst</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/recovery.cpp" />
            <source>{} is neither as it was before the delivery nor as the delivery left it</source>
            <translation>{} ist weder, wie es vor der Lieferung war, noch wie die Lieferung es hinterließ</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/recovery.cpp" />
            <source>{} is not complete</source>
            <translation>{} ist nicht vollständig</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/recovery.cpp" />
            <source>{}: the old bytes do not match their checksum</source>
            <translation>{}: die alten Bytes passen nicht zu ihrer Prüfsumme</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/undo.cpp" />
            <source>"{}" did not touch {}</source>
            <translation>„{}“ hat {} nicht berührt</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/undo.cpp" />
            <source>"{}" was delivered into it from another vault, {}. Undo that one first</source>
            <translation>„{}“ wurde aus einem anderen Tresor hineingeliefert, {}. Nimm das erst zurück</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/undo.cpp" />
            <source>"{}" was delivered later into the same file</source>
            <translation>„{}“ wurde später in dieselbe Datei geliefert</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/undo.cpp" />
            <source>Putting the old bytes back would damage it. Take the new version as it is, or restore the game's own files</source>
            <translation>Die alten Bytes zurückzulegen würde sie beschädigen. Nimm die neue Fassung, wie sie ist, oder stelle die Dateien des Spiels selbst wieder her</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/undo.cpp" />
            <source>Restore the whole archive or the delivery instead</source>
            <translation>Stelle stattdessen das ganze Archiv oder die Lieferung wieder her</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/undo.cpp" />
            <source>This delivery cannot be undone any more; the others can</source>
            <translation>Diese Lieferung lässt sich nicht mehr zurücknehmen; die anderen schon</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/undo.cpp" />
            <source>Undo that one first</source>
            <translation>Nimm das erst zurück</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/undo.cpp" />
            <source>Undo the delivery instead</source>
            <translation>Nimm stattdessen die Lieferung zurück</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/undo.cpp" />
            <source>there is no delivery {} in the vault</source>
            <translation>im Tresor gibt es keine Lieferung {}</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/undo.cpp" />
            <source>{} are too much to put together in memory</source>
            <translation>{} sind zu viel, um sie im Speicher zusammenzusetzen</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/undo.cpp" />
            <source>{} was changed by something else after "{}"</source>
            <translation>{} wurde nach „{}“ von etwas anderem geändert</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/undo.cpp" />
            <source>{} was changed by something else since this delivery</source>
            <translation>{} wurde seit dieser Lieferung von etwas anderem geändert</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/undo.cpp" />
            <source>{} was not there before the delivery</source>
            <translation>{} war vor der Lieferung nicht da</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault.cpp" />
            <source>Deliver the pieces one after the other</source>
            <translation>Liefere die Stücke eines nach dem anderen</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault.cpp" />
            <source>Look at the plan again and deliver then</source>
            <translation>Sieh dir den Plan noch einmal an und liefere dann</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault.cpp" />
            <source>Put in the card, or connect the device, and try again</source>
            <translation>Stecke die Karte ein, oder schließe das Gerät an, und versuche es noch einmal</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault.cpp" />
            <source>Put the old bytes back first: skivet-cli restore --unfinished --vault {}</source>
            <translation>Lege erst die alten Bytes zurück: skivet-cli restore --unfinished --vault {}</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault.cpp" />
            <source>The disk may be failing</source>
            <translation>Die Platte ist vielleicht defekt</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault.cpp" />
            <source>The old bytes could not be put back yet ({}); they are safe in the vault, and the next start puts them back</source>
            <translation>Die alten Bytes konnten noch nicht zurückgelegt werden ({}); sie liegen sicher im Tresor, und der nächste Start legt sie zurück</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault.cpp" />
            <source>Wait until it is done and try again</source>
            <translation>Warte, bis es fertig ist, und versuche es noch einmal</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault.cpp" />
            <source>a delivery into {} was cut short and is not rolled back yet ("{}", in the vault {})</source>
            <translation>eine Lieferung in {} wurde unterbrochen und ist noch nicht zurückgenommen („{}“, im Tresor {})</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault.cpp" />
            <source>another Skivet is writing</source>
            <translation>ein anderes Skivet schreibt</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault.cpp" />
            <source>another Skivet is writing into {}</source>
            <translation>ein anderes Skivet schreibt in {}</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault.cpp" />
            <source>cannot make the vault {}</source>
            <translation>der Tresor {} kann nicht angelegt werden</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault.cpp" />
            <source>{} are needed at {}, {} are free</source>
            <translation>{} werden bei {} gebraucht, {} sind frei</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault.cpp" />
            <source>{} is in use by {}</source>
            <translation>{} wird von {} benutzt</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault.cpp" />
            <source>{} is not there</source>
            <translation>{} ist nicht da</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault.cpp" />
            <source>{} would be written twice by one delivery</source>
            <translation>{} würde von einer Lieferung zweimal geschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/delivery/vault_register.cpp" />
            <source>cannot find the vault {}</source>
            <translation>der Tresor {} ist nicht zu finden</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/assimp_main.cpp" />
            <source>has more triangles or parts than are read</source>
            <translation>hat mehr Dreiecke oder Teile, als gelesen werden</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/assimp_main.cpp" />
            <source>is no mesh that is read</source>
            <translation>ist kein Netz, das gelesen wird</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/mesh_picture.cpp" />
            <source>there is not enough memory for {}</source>
            <translation>für {} reicht der Speicher nicht</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/mesh_picture.cpp" />
            <source>this mesh</source>
            <translation>dieses Netz</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/mesh_wire.cpp" />
            <source>a corner is vertex {} of {}</source>
            <translation>eine Ecke ist Punkt {} von {}</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/mesh_wire.cpp" />
            <source>a name of {} bytes</source>
            <translation>ein Name von {} Bytes</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/mesh_wire.cpp" />
            <source>corners that are no triangles</source>
            <translation>Ecken, die keine Dreiecke sind</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/mesh_wire.cpp" />
            <source>more than {} triangles or {} vertices</source>
            <translation>mehr als {} Dreiecke oder {} Punkte</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/mesh_wire.cpp" />
            <source>there is no map of use {}</source>
            <translation>es gibt keine Karte für {}</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/mesh_wire.cpp" />
            <source>these are not the files of a mesh</source>
            <translation>das sind nicht die Dateien eines Netzes</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/mesh_wire.cpp" />
            <source>this is not what reading a mesh gives</source>
            <translation>das ist nicht, was das Lesen eines Netzes ergibt</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/mesh_wire.cpp" />
            <source>{} numbers that are none stand as 0</source>
            <translation>{} Zahlen, die keine sind, stehen als 0</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/mesh_wire.cpp" />
            <source>{} parts, more than the {} that are read</source>
            <translation>{} Teile, mehr als die {}, die gelesen werden</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/read_mesh.cpp" />
            <source>Install Skivet again</source>
            <translation>Installiere Skivet noch einmal</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/read_mesh.cpp" />
            <source>Save it as glTF or OBJ in a modeling program</source>
            <translation>Speichere es in einem Modellierprogramm als glTF oder OBJ</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/read_mesh.cpp" />
            <source>is larger than what is read</source>
            <translation>ist größer, als gelesen wird</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/read_mesh.cpp" />
            <source>names more than {} other files; the rest was not looked for</source>
            <translation>nennt mehr als {} andere Dateien; der Rest wurde nicht gesucht</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/read_mesh.cpp" />
            <source>reading it ended with signal {}</source>
            <translation>das Lesen endete mit Signal {}</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/read_mesh.cpp" />
            <source>reading it failed: {}</source>
            <translation>das Lesen misslang: {}</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/read_mesh.cpp" />
            <source>reading it takes too long for its size</source>
            <translation>das Lesen dauert zu lange für die Größe</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/read_mesh.cpp" />
            <source>the program skivet-mesh, which reads meshes, is not beside this one</source>
            <translation>das Programm skivet-mesh, das Netze liest, liegt nicht neben diesem</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/read_mesh.cpp" />
            <source>there are no triangles in it</source>
            <translation>es sind keine Dreiecke darin</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/read_mesh.cpp" />
            <source>{} of mesh, more than {}</source>
            <translation>{} Netz, mehr als {}</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/vertex_table.cpp" />
            <source>Say which columns hold the position</source>
            <translation>Sag, welche Spalten den Ort enthalten</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/vertex_table.cpp" />
            <source>The first row names them, as x,y,z,u,v</source>
            <translation>Die erste Zeile nennt sie, etwa x,y,z,u,v</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/vertex_table.cpp" />
            <source>colors run to {} and are divided by 255</source>
            <translation>Farben gehen bis {} und werden durch 255 geteilt</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/vertex_table.cpp" />
            <source>column {} is left out: row {} has "{}" there, which is no number</source>
            <translation>Spalte {} bleibt weg: In Zeile {} steht dort „{}“, was keine Zahl ist</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/vertex_table.cpp" />
            <source>columns {} and {} are both {}</source>
            <translation>die Spalten {} und {} sind beide {}</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/vertex_table.cpp" />
            <source>more than {} columns</source>
            <translation>mehr als {} Spalten</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/vertex_table.cpp" />
            <source>more than {} rows</source>
            <translation>mehr als {} Zeilen</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/vertex_table.cpp" />
            <source>no columns are x, y and z</source>
            <translation>keine Spalten sind x, y und z</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/vertex_table.cpp" />
            <source>normals are numbers of 0 to 255</source>
            <translation>Normalen sind Zahlen von 0 bis 255</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/vertex_table.cpp" />
            <source>row {} has {} values, the header {} names</source>
            <translation>Zeile {} hat {} Werte, die Kopfzeile {} Namen</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/vertex_table.cpp" />
            <source>the last {} rows make no triangle</source>
            <translation>die letzten {} Zeilen ergeben kein Dreieck</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/vertex_table.cpp" />
            <source>there are no vertices in this table</source>
            <translation>in dieser Tabelle sind keine Punkte</translation>
        </message>
        <message>
            <location filename="../../../src/mesh/vertex_table.cpp" />
            <source>this is no table of vertices: its first row has no names of columns</source>
            <translation>das ist keine Tabelle von Punkten: Ihre erste Zeile nennt keine Spalten</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/change.cpp" />
            <source>It was made for another version of this texture</source>
            <translation>Es wurde für eine andere Version dieser Textur gemacht</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/change.cpp" />
            <source>a {} file does not come out the same when some of it is changed</source>
            <translation>eine {}-Datei kommt nicht gleich heraus, wenn etwas davon geändert wird</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/change.cpp" />
            <source>ends at unit {} of {}</source>
            <translation>endet bei Einheit {} von {}</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/change.cpp" />
            <source>is empty</source>
            <translation>ist leer</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/change.cpp" />
            <source>its levels are not of whole units</source>
            <translation>seine Stufen sind nicht aus ganzen Einheiten</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/change.cpp" />
            <source>lies before the one before it</source>
            <translation>liegt vor dem davor</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/change.cpp" />
            <source>needs {} bytes of units, has {}</source>
            <translation>braucht {} Byte Einheiten, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/change.cpp" />
            <source>stretch {}: {}</source>
            <translation>Strecke {}: {}</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/change.cpp" />
            <source>the file became shorter</source>
            <translation>die Datei wurde kürzer</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/change.cpp" />
            <source>there is no surface {}</source>
            <translation>es gibt keine Fläche {}</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/change.cpp" />
            <source>{} became {}, which is no change of some blocks</source>
            <translation>aus {} wurde {}, das ist keine Änderung einiger Blöcke</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/change.cpp" />
            <source>{} of its {} changed stretches hold something else here</source>
            <translation>{} seiner {} geänderten Strecken enthalten hier etwas anderes</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/change.cpp" />
            <source>{} stretches do not fit into {}</source>
            <translation>{} Strecken passen nicht in {}</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/change.cpp" />
            <source>{} {} with {} mips in {}</source>
            <translation>{} {} mit {} Mips in {}</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>"path" is missing</source>
            <translation>„path“ fehlt</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>"path" is no list of paths</source>
            <translation>„path“ ist keine Liste von Pfaden</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>"{}" has {} bytes, at most {} are allowed</source>
            <translation>„{}“ hat {} Byte, höchstens {} sind erlaubt</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>"{}" is no SHA-256 in lower-case hexadecimal</source>
            <translation>„{}“ ist kein SHA-256 in kleinen hexadezimalen Ziffern</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>"{}" is no list</source>
            <translation>„{}“ ist keine Liste</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>"{}" is no list of parcels</source>
            <translation>„{}“ ist keine Liste von Paketen</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>"{}" is no name of a file in the parcel</source>
            <translation>„{}“ ist kein Name einer Datei im Paket</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>"{}" is no object</source>
            <translation>„{}“ ist kein Objekt</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>"{}" is no text</source>
            <translation>„{}“ ist kein Text</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>"{}" is no whole number</source>
            <translation>„{}“ ist keine ganze Zahl</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>is no object</source>
            <translation>ist kein Objekt</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>it has not one of "change" and "whole"</source>
            <translation>es hat nicht genau eines von „change“ und „whole“</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>it is a change, and does not say of what</source>
            <translation>es ist eine Änderung und sagt nicht, wovon</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>parcels of version {}</source>
            <translation>Pakete der Version {}</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>texture {}</source>
            <translation>Textur {}</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>the format "{}" is not known</source>
            <translation>das Format „{}“ ist nicht bekannt</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>the manifest does not say that it is a parcel's</source>
            <translation>das Manifest sagt nicht, dass es das eines Pakets ist</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>the manifest has lists in lists in lists</source>
            <translation>das Manifest hat Listen in Listen in Listen</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>the manifest is no JSON: {}</source>
            <translation>das Manifest ist kein JSON: {}</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>the manifest is no object</source>
            <translation>das Manifest ist kein Objekt</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>what it becomes is missing</source>
            <translation>was daraus wird, fehlt</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/manifest.cpp" />
            <source>{} textures are more than a parcel holds</source>
            <translation>{} Texturen sind mehr, als ein Paket fasst</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/parcel.cpp" />
            <source>"{}" is no parcel's id</source>
            <translation>„{}“ ist keine Kennung eines Pakets</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/parcel.cpp" />
            <source>"{}" is no parcel's id: lower-case letters, digits, '-' and '.', at most 64, a letter or digit first</source>
            <translation>„{}“ ist keine Kennung eines Pakets: kleine Buchstaben, Ziffern, '-' und '.', höchstens 64, vorn ein Buchstabe oder eine Ziffer</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/parcel.cpp" />
            <source>A parcel could only hold the whole texture. Say that it is wholly your own, if it is</source>
            <translation>Ein Paket könnte nur die ganze Textur enthalten. Sag, dass sie ganz deine eigene ist, wenn sie es ist</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/parcel.cpp" />
            <source>Say that it is wholly your own, if it is</source>
            <translation>Sage, dass es ganz deine eigene Arbeit ist, wenn sie es ist</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/parcel.cpp" />
            <source>a parcel has a title</source>
            <translation>ein Paket hat einen Titel</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/parcel.cpp" />
            <source>a text of more than 256 bytes where a few words belong</source>
            <translation>ein Text von mehr als 256 Byte, wo wenige Wörter hingehören</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/parcel.cpp" />
            <source>nearly all of it is other than the game's: painted anew, or the game's own, compressed again</source>
            <translation>fast alles daran ist anders als im Spiel: neu gemalt, oder das des Spiels, neu gepackt</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/parcel.cpp" />
            <source>notes of more than 64 KB</source>
            <translation>Anmerkungen von mehr als 64 KB</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/parcel_file.cpp" />
            <source>"{}" has {}, at most {} are expected</source>
            <translation>„{}“ hat {}, höchstens {} sind erwartet</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/parcel_file.cpp" />
            <source>"{}" is not in the parcel</source>
            <translation>„{}“ ist nicht im Paket</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/parcel_file.cpp" />
            <source>the parcel could not be put together</source>
            <translation>das Paket ließ sich nicht zusammenstellen</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/parcel_file.cpp" />
            <source>the parcel unpacks to more than the limit</source>
            <translation>das Paket entpackt sich zu mehr als erlaubt</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/parcel_file.cpp" />
            <source>the whole texture is not what it says it becomes</source>
            <translation>die ganze Textur ist nicht, was sie zu werden behauptet</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/pictures.cpp" />
            <source>{} cannot be decoded</source>
            <translation>{} lässt sich nicht dekodieren</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/pictures.cpp" />
            <source>{} has {}×{} texels; previews have at most {}</source>
            <translation>{} hat {}×{} Texel; Vorschauen haben höchstens {}</translation>
        </message>
        <message>
            <location filename="../../../src/parcel/pictures.cpp" />
            <source>{} is no WebP picture</source>
            <translation>{} ist kein WebP-Bild</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/alpha_use.cpp" />
            <source>, color premultiplied</source>
            <translation>, Farbe mit Alpha malgenommen</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/alpha_use.cpp" />
            <source>, colors under zero alpha</source>
            <translation>, Farben unter Alpha null</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/alpha_use.cpp" />
            <source>cut-out</source>
            <translation>Ausschnitt</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/alpha_use.cpp" />
            <source>gradient</source>
            <translation>Verlauf</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/alpha_use.cpp" />
            <source>mask</source>
            <translation>Maske</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/alpha_use.cpp" />
            <source>opaque</source>
            <translation>deckend</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/alpha_use.cpp" />
            <source>zero everywhere</source>
            <translation>überall null</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/mips.cpp" />
            <source>, alpha coverage kept at {}</source>
            <translation>, Deckung von Alpha bei {} gehalten</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/mips.cpp" />
            <source>, color weighted by alpha</source>
            <translation>, Farbe nach Alpha gewichtet</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/mips.cpp" />
            <source>, edges wrap</source>
            <translation>, Ränder laufen herum</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/mips.cpp" />
            <source>, normals renormalized</source>
            <translation>, Normalen neu auf eins</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/mips.cpp" />
            <source>Catmull-Rom</source>
            <translation>Catmull-Rom</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/mips.cpp" />
            <source>Gaussian</source>
            <translation>Gauß</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/mips.cpp" />
            <source>Kaiser</source>
            <translation>Kaiser</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/mips.cpp" />
            <source>Lanczos</source>
            <translation>Lanczos</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/mips.cpp" />
            <source>Mitchell</source>
            <translation>Mitchell</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/mips.cpp" />
            <source>box</source>
            <translation>Kasten</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/mips.cpp" />
            <source>point</source>
            <translation>Punkt</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/mips.cpp" />
            <source>triangle</source>
            <translation>Dreieck</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/mips.cpp" />
            <source>{} filter</source>
            <translation>Filter {}</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/mips.cpp" />
            <source>{} filter in encoded light</source>
            <translation>Filter {} in kodiertem Licht</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/mips.cpp" />
            <source>{} filter in linear light</source>
            <translation>Filter {} in linearem Licht</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/normals.cpp" />
            <source>normals in alpha and green</source>
            <translation>Normalen in Alpha und Grün</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/normals.cpp" />
            <source>normals in red and green</source>
            <translation>Normalen in Rot und Grün</translation>
        </message>
        <message>
            <location filename="../../../src/pixel/normals.cpp" />
            <source>normals in red, green and blue</source>
            <translation>Normalen in Rot, Grün und Blau</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/level_storage.cpp" />
            <source>level of {}×{}: needs {} bytes, has {}</source>
            <translation>Stufe von {}×{}: braucht {} Byte, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/method.cpp" />
            <source>Name your program for it in the project's settings, or with --unpacker and --packer</source>
            <translation>Nenne dein Programm dafür in den Einstellungen des Projekts, oder mit --unpacker und --packer</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/method.cpp" />
            <source>wants the packer "{}"</source>
            <translation>will den Packer „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>"{}" is a number, or two that follow one another: [from, to]</source>
            <translation>„{}“ ist eine Zahl, oder zwei, die aufeinander folgen: [von, bis]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>No sheet needs that</source>
            <translation>Kein Blatt braucht das</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>The file is no valid TOML</source>
            <translation>Die Datei ist kein gültiges TOML</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>[[recognize]] must be a table</source>
            <translation>[[recognize]] muss eine Tabelle sein</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>[header] must be a table</source>
            <translation>[header] muss eine Tabelle sein</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>a [[recognize]] says text or bytes, a name, a size, a field with equals or between, file_size, tables or any</source>
            <translation>ein [[recognize]] sagt Text oder Bytes, einen Namen, eine Größe, ein Feld mit equals oder between, file_size, tables oder any</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>a field that means "byte order" needs values</source>
            <translation>ein Feld, das „byte order“ bedeutet, braucht values</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>a name has parts</source>
            <translation>ein Name hat Teile</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>a sheet needs at least one [[recognize]]</source>
            <translation>ein Blatt braucht mindestens ein [[recognize]]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>a texture sheet needs a [header] with fields, or a [texture] that says everything</source>
            <translation>ein Texturblatt braucht einen [header] mit Feldern, oder ein [texture], das alles sagt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>any is a list of conditions, and not within another any</source>
            <translation>any ist eine Liste von Bedingungen, und nicht in einem anderen any</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>any is a list of conditions: [ { text = "AB" }, { text = "CD" } ]</source>
            <translation>any ist eine Liste von Bedingungen: [ { text = "AB" }, { text = "CD" } ]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>at goes with text or bytes</source>
            <translation>at gehört zu text oder bytes</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>equals and between go with field</source>
            <translation>equals und between gehören zu field</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>field and file_size are two conditions; write two [[recognize]]</source>
            <translation>field und file_size sind zwei Bedingungen; schreibe zwei [[recognize]]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>field needs equals, the number it must have, or between, the two it lies between</source>
            <translation>field braucht equals, die Zahl, die es haben muss, oder between, die zwei, zwischen denen es liegt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>recognize names the header field "{}", which is not there</source>
            <translation>recognize nennt das Kopffeld „{}“, das es nicht gibt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>sheet = "{}" is not known; write "container", "texture" or "wrapper"</source>
            <translation>sheet = "{}" ist nicht bekannt; schreibe "container", "texture" oder "wrapper"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>tables = "hold" is a condition of a container's own [[recognize]]</source>
            <translation>tables = "hold" ist eine Bedingung im eigenen [[recognize]] eines Containers</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>values are nested</source>
            <translation>Werte sind verschachtelt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>{} more than {} deep</source>
            <translation>{} mehr als {} tief</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse.cpp" />
            <source>{}: a sheet of more than 1 MB</source>
            <translation>{}: ein Blatt von mehr als 1 MB</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>[chunks] have no effect without a method</source>
            <translation>[chunks] wirkt nicht ohne Verfahren</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>[data] level and starts_as have no effect without a method</source>
            <translation>[data] level und starts_as wirken nicht ohne Verfahren</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>[data] packed needs a method and a field that means "size"</source>
            <translation>[data] packed braucht ein Verfahren und ein Feld, das „size“ bedeutet</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>[folders] needs a count, or a header field that means "folder count"</source>
            <translation>[folders] braucht eine Anzahl, oder ein Kopffeld, das „folder count“ bedeutet</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>[hash] has no effect: no field means "path hash"</source>
            <translation>[hash] wirkt nicht: kein Feld bedeutet „path hash“</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>[names] have no effect: no field means "name offset" or "name index", and they are not in_order</source>
            <translation>[names] wirkt nicht: kein Feld bedeutet „name offset“ oder „name index“, und sie sind nicht in_order</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>[names] in_order: a field says the name, too</source>
            <translation>[names] in_order: auch ein Feld sagt den Namen</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>a container sheet needs a [record] with the fields of one entry</source>
            <translation>ein Containerblatt braucht ein [record] mit den Feldern eines Eintrags</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>a field means "data end" and says where data ends</source>
            <translation>ein Feld bedeutet „data end“ und sagt, wo die Daten enden</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>a field means "data offset"; [data] at says where data begins, too</source>
            <translation>ein Feld bedeutet „data offset“; auch [data] at sagt, wo die Daten beginnen</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>a field means "stored size" and says where data ends</source>
            <translation>ein Feld bedeutet „stored size“ und sagt, wo die Daten enden</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>a field means "stored size"; where data ends follows from it</source>
            <translation>ein Feld bedeutet „stored size“; wo die Daten enden, folgt daraus</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>a file number needs [data] file = "…{number}…"</source>
            <translation>eine Dateinummer braucht [data] file = "…{number}…"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>a last record that only says where data ends goes with a plain table of records</source>
            <translation>ein letzter Satz, der nur sagt, wo die Daten enden, gehört zu einer einfachen Tabelle von Sätzen</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>a level is "folder", "name" or "extension"</source>
            <translation>eine Ebene ist „folder“, „name“ oder „extension“</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>a marker is a name with {folder} in it, such as "{folder}_START"</source>
            <translation>eine Marke ist ein Name mit {folder} darin, etwa "{folder}_START"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>a path hash needs [hash]</source>
            <translation>ein Pfad-Hash braucht [hash]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>arrays go with a count and without [folders] and [tree]</source>
            <translation>Felder in Folge gehören zu einer Anzahl und gehen nicht mit [folders] und [tree]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>arrays have values of a fixed size</source>
            <translation>Felder in Folge haben Werte fester Größe</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>at names the header field "{}", which is not there</source>
            <translation>at nennt das Kopffeld „{}“, das es nicht gibt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>base names the header field "{}", which is not there</source>
            <translation>base nennt das Kopffeld „{}“, das es nicht gibt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>chunks are packed by [data] method</source>
            <translation>Stücke werden nach dem Verfahren von [data] gepackt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>count names the header field "{}", which is not there</source>
            <translation>count nennt das Kopffeld „{}“, das es nicht gibt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>counted is the type of the number that stands before the records: u8, u16, u24, u32 or u64</source>
            <translation>counted ist der Typ der Zahl, die vor den Sätzen steht: u8, u16, u24, u32 oder u64</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>counted says how many records there are; count and until say it, too</source>
            <translation>counted sagt, wie viele Sätze es sind; count und until sagen es auch</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>data behind its record goes without [folders] and [tree]</source>
            <translation>Daten hinter ihrem Satz gehen nicht mit [folders] und [tree]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>data whose place follows from its order lies in the archive itself</source>
            <translation>Daten, deren Ort aus ihrer Reihenfolge folgt, liegen im Archiv selbst</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>entries in a stream of chunks have a "data offset" and a "size" in it, and no method, stored size, encryption or data file of their own</source>
            <translation>Einträge in einem Strom von Stücken haben darin „data offset“ und „size“, und kein Verfahren, keine gepackte Größe, Verschlüsselung oder Datendatei für sich</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>entries that may be compressed need a field that means "size"</source>
            <translation>Einträge, die gepackt sein können, brauchen ein Feld, das „size“ bedeutet</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>entries that may be compressed need a field that means "stored size"</source>
            <translation>Einträge, die gepackt sein können, brauchen ein Feld, das „stored size“ bedeutet</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>kind of a path hash is crc32, fnv1a32, fnv1a64, xxh32, xxh64 or "multiply add"</source>
            <translation>die Art eines Pfad-Hashs ist crc32, fnv1a32, fnv1a64, xxh32, xxh64 oder "multiply add"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>length is "until zero", u8, u16 or u32</source>
            <translation>length ist "until zero", u8, u16 oder u32</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>levels are a list such as ["folder", "name"]</source>
            <translation>Ebenen sind eine Liste wie ["folder", "name"]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>multiply add needs a multiplier</source>
            <translation>multiply add braucht einen multiplier</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>names by offset or index need [names]</source>
            <translation>Namen nach Ort oder Nummer brauchen [names]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>no field of [folders] means "entry count"</source>
            <translation>kein Feld von [folders] bedeutet „entry count“</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>no field of [header] means "entry count", and [record] says neither count nor until</source>
            <translation>kein Feld von [header] bedeutet „entry count“, und [record] sagt weder count noch until</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>no field of [record] means "data offset", and [data] at does not say where data begins</source>
            <translation>kein Feld von [record] bedeutet „data offset“, und [data] at sagt nicht, wo die Daten beginnen</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>no field of [record] means "path" (or name, name offset, name index, path hash), and [record] says no path such as "{number:4}"</source>
            <translation>kein Feld von [record] bedeutet „path“ (oder name, name offset, name index, path hash), und [record] sagt keinen Pfad wie "{number:4}"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>no field of [record] means "stored size", and [record] does not say where data ends</source>
            <translation>kein Feld von [record] bedeutet „stored size“, und [record] sagt nicht, wo die Daten enden</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>packed = "stored size not 0" needs a field that means "stored size"</source>
            <translation>packed = "stored size not 0" braucht ein Feld, das „stored size“ bedeutet</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>records lie "in folder", and there is no [folders]</source>
            <translation>Einträge liegen „in folder“, und es gibt kein [folders]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>size names the header field "{}", which is not there</source>
            <translation>size nennt das Kopffeld „{}“, das es nicht gibt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>slash is "/" or "\\"</source>
            <translation>slash ist "/" oder "\\"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>the dictionary is a file beside the sheet, named without a folder</source>
            <translation>die Wörterliste ist eine Datei neben dem Blatt, ohne Ordner genannt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>until names the field "{}", which is not in the record</source>
            <translation>until nennt das Feld „{}“, das nicht im Satz ist</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>where data ends by the next one's offset, a field says the offsets</source>
            <translation>wo Daten beim Ort der nächsten enden, sagt ein Feld die Orte</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_container.cpp" />
            <source>where data ends counts as where it begins does: a field has to mean "data offset"</source>
            <translation>wo Daten enden, zählt wie, wo sie beginnen: ein Feld muss „data offset“ bedeuten</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>"iv" has no effect on the cipher "{}"</source>
            <translation>„iv“ wirkt nicht auf das Verfahren „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>"table stored size" goes with [table] method; the size of a plain directory is "table size"</source>
            <translation>„table stored size“ gehört zu [table] method; die Größe eines einfachen Verzeichnisses ist „table size“</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>"{}" goes with the fields of a table of chunks</source>
            <translation>„{}“ gehört zu den Feldern einer Tabelle von Stücken</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>"{}" has no effect on the cipher "{}"</source>
            <translation>„{}“ wirkt nicht auf das Verfahren „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>"{}" is at most {}</source>
            <translation>„{}“ ist höchstens {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>[[packer]] must be a table</source>
            <translation>[[packer]] muss eine Tabelle sein</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>[table] says the method the directory is packed with</source>
            <translation>[table] sagt das Verfahren, mit dem das Verzeichnis gepackt ist</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>a chunk has 1 byte to 64 MB</source>
            <translation>ein Stück hat 1 Byte bis 64 MB</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>a control byte is 0 to 255</source>
            <translation>ein Steuerbyte ist 0 bis 255</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>a directory packed with {} needs header fields that mean "table size" and "table stored size"</source>
            <translation>ein mit {} gepacktes Verzeichnis braucht Kopffelder, die „table size“ und „table stored size“ bedeuten</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>a field that means "method" needs values</source>
            <translation>ein Feld, das „method“ bedeutet, braucht values</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>a table of chunks belongs to a container</source>
            <translation>eine Tabelle von Stücken gehört zu einem Container</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>a table of chunks has a count: a number, or a header field</source>
            <translation>eine Tabelle von Stücken hat eine Anzahl: eine Zahl, oder ein Kopffeld</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>a wrapper says how it is packed: a field that means "method", [data] method, or [encryption]</source>
            <translation>eine Hülle sagt, wie sie gepackt ist: ein Feld, das „method“ bedeutet, [data] method, oder [encryption]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>align is 1 to 1048576, fill is 0 to 255</source>
            <translation>align ist 1 bis 1048576, fill ist 0 bis 255</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>an IV from a field is 16 bytes</source>
            <translation>ein IV aus einem Feld hat 16 Byte</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>an IV has 16 bytes</source>
            <translation>ein IV hat 16 Byte</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>cipher is aes-128-ecb, -cbc, -ctr (or 192, 256), xor, "xor rolling", "swap 2", "swap 4", "reverse bits" or "invert"</source>
            <translation>cipher ist aes-128-ecb, -cbc, -ctr (oder 192, 256), xor, "xor rolling", "swap 2", "swap 4", "reverse bits" oder "invert"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>count and step go with "copy" and "repeat"</source>
            <translation>count und step gehören zu "copy" und "repeat"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>count is at most 65536, step is 1, 0 or -1</source>
            <translation>count ist höchstens 65536, step ist 1, 0 oder -1</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>counted goes with the cipher xor</source>
            <translation>counted gehört zum Verfahren xor</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>data does not lie "in folder"</source>
            <translation>Daten liegen nicht „in folder“</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>data files lie beside the archive; the name has no folder</source>
            <translation>Datendateien liegen neben dem Archiv; der Name hat keinen Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>data in chunks begins with their sizes, or has a table of them; starts_as has no effect</source>
            <translation>Daten in Stücken beginnen mit deren Größen, oder haben eine Tabelle davon; starts_as wirkt nicht</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>key is the key's name in the key ring; key_field the header field that holds the key</source>
            <translation>key ist der Name des Schlüssels am Schlüsselbund; key_field das Kopffeld mit dem Schlüssel</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>key_field names the header field "{}", which is no bytes or number</source>
            <translation>key_field nennt das Kopffeld „{}“, das keine Bytes und keine Zahl ist</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>level is 0 to 22</source>
            <translation>level ist 0 bis 22</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>more than 256 ranges</source>
            <translation>mehr als 256 Bereiche</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>more than 32 [[packer]]</source>
            <translation>mehr als 32 [[packer]]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>no field of [chunks] means "data offset", and data does not say where the first chunk lies</source>
            <translation>kein Feld von [chunks] bedeutet „data offset“, und data sagt nicht, wo das erste Stück liegt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>no field of [chunks] means "stored size" or "data offset"</source>
            <translation>kein Feld von [chunks] bedeutet „stored size“ oder „data offset“</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>no field of [header] means "size"</source>
            <translation>kein Feld von [header] bedeutet „size“</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>parts need file = "…{number}…"</source>
            <translation>Teile brauchen file = "…{number}…"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>programs pack what is in archives and wrappers, not parts of a texture</source>
            <translation>Programme packen, was in Archiven und Hüllen ist, nicht Teile einer Textur</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>ranges are a list of { control = [0, 127], does = "copy", count = 1 }</source>
            <translation>ranges sind eine Liste von { control = [0, 127], does = "copy", count = 1 }</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>sizes are u8, u16, u24, u32 or u64</source>
            <translation>Größen sind u8, u16, u24, u32 oder u64</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>sizes stand before the chunks, or in the fields of their table</source>
            <translation>Größen stehen vor den Stücken, oder in den Feldern ihrer Tabelle</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>starts_with are the bytes streams begin with, starts_as those they stand for; both have as many</source>
            <translation>starts_with sind die Bytes, mit denen Ströme beginnen, starts_as die, für die sie stehen; beide haben gleich viele</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>the IV of a table is fixed</source>
            <translation>der IV einer Tabelle ist fest</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>the method "{}" is not known; {}, or the name of a [[packer]]</source>
            <translation>das Verfahren „{}“ ist nicht bekannt; {}, oder der Name eines [[packer]]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>the table of chunks has fields of a fixed size</source>
            <translation>die Tabelle der Stücke hat Felder fester Größe</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>two methods are called "{}"</source>
            <translation>zwei Verfahren heißen „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>write [[packer]]</source>
            <translation>schreibe [[packer]]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_data.cpp" />
            <source>{} is a list of [lowest bit, how many], such as [[0, 8], [12, 4]]</source>
            <translation>{} ist eine Liste von [unterstes Bit, wie viele], etwa [[0, 8], [12, 4]]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>"fields" must be a list of fields</source>
            <translation>„fields“ muss eine Liste von Feldern sein</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>"of" is missing: a checksum here is of {}</source>
            <translation>„of“ fehlt: eine Prüfsumme hier ist von {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>"order" has no effect on single bytes</source>
            <translation>„order“ wirkt nicht auf einzelne Bytes</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>"{}" cannot be a field of this type</source>
            <translation>„{}“ kann kein Feld dieses Typs sein</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>"{}" has no effect here</source>
            <translation>„{}“ wirkt hier nicht</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>"{}" has no effect on a field of the type {}</source>
            <translation>„{}“ wirkt nicht auf ein Feld vom Typ {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>"{}" has no effect on a field that means no checksum</source>
            <translation>„{}“ wirkt nicht auf ein Feld, das keine Prüfsumme bedeutet</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>"{}" has no effect on a field that means no offset</source>
            <translation>„{}“ wirkt nicht auf ein Feld, das keinen Ort bedeutet</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>"{}" says its kind</source>
            <translation>„{}“ sagt seine Art</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>"{}" says what it is of</source>
            <translation>„{}“ sagt, wovon sie ist</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>, "until zero"</source>
            <translation>, "until zero"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>a byte order is "little" or "big"</source>
            <translation>eine Bytefolge ist "little" oder "big"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>a checksum has no effect here</source>
            <translation>eine Prüfsumme wirkt hier nicht</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>a checksum here is of {}</source>
            <translation>eine Prüfsumme hier ist von {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>a checksum is a number</source>
            <translation>eine Prüfsumme ist eine Zahl</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>a checksum of the file is of all of it</source>
            <translation>eine Prüfsumme der Datei ist von allem</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>a field is written { name = …, type = … }</source>
            <translation>ein Feld wird als { name = …, type = … } geschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>a pad needs align, 1 to 1048576</source>
            <translation>ein pad braucht align, 1 bis 1048576</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>a part is written { name = …, at = 0, count = 4 }</source>
            <translation>ein Teil wird als { name = …, at = 0, count = 4 } geschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>a unit of 0 bytes</source>
            <translation>eine Einheit von 0 Byte</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>bits are a list of parts</source>
            <translation>bits sind eine Liste von Teilen</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>bits {} to {} of {} bytes</source>
            <translation>Bits {} bis {} von {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>bytes need</source>
            <translation>bytes braucht</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>color is "linear" or "srgb"</source>
            <translation>color ist "linear" oder "srgb"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>has no effect here</source>
            <translation>wirkt hier nicht</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>is not known</source>
            <translation>ist nicht bekannt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>kind of a checksum is crc32, adler32, fnv1a32, fnv1a64, xxh32, xxh64, sha1, sha256 or sum</source>
            <translation>die Art einer Prüfsumme ist crc32, adler32, fnv1a32, fnv1a64, xxh32, xxh64, sha1, sha256 oder sum</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>length "{}" is not known; u8, u16, u32{}, or a field before it</source>
            <translation>length „{}“ ist nicht bekannt; u8, u16, u32{}, oder ein Feld davor</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>of is a range, or a list of some</source>
            <translation>of ist ein Bereich, oder eine Liste von mehreren</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>only a container's header has checksums of several ranges</source>
            <translation>nur der Kopf eines Containers hat Prüfsummen mehrerer Bereiche</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>only a whole number has bits</source>
            <translation>nur eine ganze Zahl hat bits</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>sha1 and sha256 are fields of the type bytes</source>
            <translation>sha1 und sha256 sind Felder vom Typ bytes</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>size and length both say how long it is</source>
            <translation>size und length sagen beide, wie lang es ist</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>text needs</source>
            <translation>text braucht</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>the field "{}" is no length</source>
            <translation>das Feld „{}“ ist keine Länge</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>the format "{}" is not known; one of {}, with srgb or linear behind it where that is sure</source>
            <translation>das Format „{}“ ist nicht bekannt; eines von {}, mit srgb oder linear dahinter, wo es sicher ist</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>the meaning "{}" {}; one of {}</source>
            <translation>die Bedeutung „{}“ {}; eine von {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>the type "{}" is not known; u8, u16, u24, u32, u40, u48, u64 (or i for signed), f32, f64, text, bytes or pad</source>
            <translation>der Typ „{}“ ist nicht bekannt; u8, u16, u24, u32, u40, u48, u64 (oder i mit Vorzeichen), f32, f64, text, bytes oder pad</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>this digest has {} bytes</source>
            <translation>dieser Hash hat {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>two fields are called "{}"</source>
            <translation>zwei Felder heißen „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>two fields mean "{}"</source>
            <translation>zwei Felder bedeuten „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>values are written { 0 = "name", 1 = "name" }</source>
            <translation>values werden als { 0 = "name", 1 = "name" } geschrieben</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>where a section ends is a base for the data offset of a record</source>
            <translation>wo ein Abschnitt endet, ist eine Basis für den Datenort eines Satzes</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_fields.cpp" />
            <source>{} a size or a length</source>
            <translation>{} eine size oder eine length</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>"first" has no effect on numbers of 8 bits</source>
            <translation>„first“ wirkt nicht auf Zahlen von 8 Bit</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>[[sibling]] must be a table</source>
            <translation>[[sibling]] muss eine Tabelle sein</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>[palette] says how texels are stored; its entries' format is said there, too</source>
            <translation>[palette] sagt, wie Texel abgelegt sind; auch das Format ihrer Einträge steht dort</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>[payload] and [palette] go with [texture]</source>
            <translation>[payload] und [palette] gehören zu [texture]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>a field that means "format" needs values</source>
            <translation>ein Feld, das „format“ bedeutet, braucht values</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>a packed payload is in one file</source>
            <translation>gepackter Inhalt steht in einer Datei</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>a packed payload with its palette in another file needs a field that means "payload size"</source>
            <translation>gepackter Inhalt mit seiner Palette in einer anderen Datei braucht ein Feld, das „payload size“ bedeutet</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>a palette here stands before the levels, or so many bytes before the data's end (a negative at)</source>
            <translation>eine Palette steht hier vor den Stufen, oder so viele Byte vor dem Ende der Daten (ein negatives at)</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>a palette is at a number of bytes, at what a header field says, or "after header"</source>
            <translation>eine Palette ist bei einer Zahl von Byte, bei dem, was ein Kopffeld sagt, oder "after header"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>a palette's entries are of a format such as RGBA8, RGB8 or B5G6R5, not "{}"</source>
            <translation>die Einträge einer Palette haben ein Format wie RGBA8, RGB8 oder B5G6R5, nicht „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>align is 1 to 1048576</source>
            <translation>align ist 1 bis 1048576</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>bits of a number are 1, 2, 4 or 8</source>
            <translation>die Bits einer Zahl sind 1, 2, 4 oder 8</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>block_height is 1, 2, 4, 8, 16 or 32</source>
            <translation>block_height ist 1, 2, 4, 8, 16 oder 32</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>channels and planes have no effect on numbers of palette entries</source>
            <translation>channels und planes wirken nicht auf Nummern von Paletteneinträgen</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>channels are the letters r, g, b, a in the order they are stored, such as "argb"</source>
            <translation>channels sind die Buchstaben r, g, b, a in der abgelegten Reihenfolge, etwa "argb"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>color is said by a field and by [texture]</source>
            <translation>color sagen ein Feld und [texture]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>entries names the header field "{}", which is not there</source>
            <translation>entries nennt das Kopffeld „{}“, das es nicht gibt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>file is a name in the same folder with {stem} or {name} in it, such as "{stem}.{mip}"</source>
            <translation>file ist ein Name im selben Ordner mit {stem} oder {name} darin, etwa "{stem}.{mip}"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>format is said by a field and by [texture]</source>
            <translation>format sagen ein Feld und [texture]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>gob_rows is 4 or 8</source>
            <translation>gob_rows ist 4 oder 8</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>how data is packed is said by [data] method</source>
            <translation>wie Daten gepackt sind, sagt [data] method</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>in another file a palette is at a number of bytes</source>
            <translation>in einer anderen Datei ist eine Palette bei einer Zahl von Byte</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>level goes with a method</source>
            <translation>level gehört zu einem Verfahren</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>levels names the header field "{}", which is not there</source>
            <translation>levels nennt das Kopffeld „{}“, das es nicht gibt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>mips is a number, or "all" for levels down to one texel</source>
            <translation>mips ist eine Zahl, oder "all" für Stufen bis zu einem Texel</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>more than 16 [[sibling]]</source>
            <translation>mehr als 16 [[sibling]]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>no field of {} means "format", and [texture] does not say it</source>
            <translation>kein Feld von {} bedeutet „format“, und [texture] sagt es nicht</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>no field of {} means "{}", and [texture] does not say it</source>
            <translation>kein Feld von {} bedeutet „{}“, und [texture] sagt es nicht</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>numbers of {} bits have 1 to {} entries</source>
            <translation>Nummern von {} Bit haben 1 bis {} Einträge</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>row_align is 1 to 65536</source>
            <translation>row_align ist 1 bis 65536</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>row_pitch is at most 1048576</source>
            <translation>row_pitch ist höchstens 1048576</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>rows, lines and planes go with linear levels</source>
            <translation>rows, lines und planes gehören zu linearen Stufen</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>smallest and together are sides in texels</source>
            <translation>smallest und together sind Seiten in Texeln</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>the header of a texture cannot count from the end</source>
            <translation>der Kopf einer Textur kann nicht vom Ende zählen</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>the levels begin where the entry's data does; "at" has no effect</source>
            <translation>die Stufen beginnen, wo die Daten des Eintrags beginnen; „at“ wirkt nicht</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>the method "{}" is not known</source>
            <translation>das Verfahren „{}“ ist nicht bekannt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>the palette's file lies in the same folder</source>
            <translation>die Datei der Palette liegt im selben Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>tile is [width, height] in texels, or in blocks of block formats</source>
            <translation>tile ist [Breite, Höhe] in Texeln, oder bei Blockformaten in Blöcken</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>tiles need tile = [width, height], or bits = "xyxyxy"</source>
            <translation>tiles braucht tile = [Breite, Höhe], oder bits = "xyxyxy"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>tiling is "linear", "morton", "block-linear" or "tiles"</source>
            <translation>tiling ist "linear", "morton", "block-linear" oder "tiles"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>write [[sibling]]</source>
            <translation>schreibe [[sibling]]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>{} goes with tiling = "{}"</source>
            <translation>{} gehört zu tiling = "{}"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>{} is at least 1</source>
            <translation>{} ist mindestens 1</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_texture.cpp" />
            <source>{} is said by a field and by [texture]</source>
            <translation>{} sagen ein Feld und [texture]</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_toml.h" />
            <source>"{}" is missing</source>
            <translation>„{}“ fehlt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_toml.h" />
            <source>"{}" must be a whole number</source>
            <translation>„{}“ muss eine ganze Zahl sein</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_toml.h" />
            <source>"{}" must be a whole number, 0 or more</source>
            <translation>„{}“ muss eine ganze Zahl sein, 0 oder mehr</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_toml.h" />
            <source>"{}" must be text</source>
            <translation>„{}“ muss Text sein</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_toml.h" />
            <source>"{}" must be true or false</source>
            <translation>„{}“ muss true oder false sein</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_toml.h" />
            <source>the word "{}" is not known here</source>
            <translation>das Wort „{}“ ist hier nicht bekannt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_toml.h" />
            <source>{} are pairs of hexadecimal digits, such as "46 43"</source>
            <translation>{} sind Paare hexadezimaler Ziffern, etwa "46 43"</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/parse_toml.h" />
            <source>{} is {}</source>
            <translation>{} ist {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/raw_lens.cpp" />
            <source>A side has 1 to 16,384 texels</source>
            <translation>Eine Seite hat 1 bis 16.384 Texel</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/raw_lens.cpp" />
            <source>Choose an uncompressed format</source>
            <translation>Wähle ein ungepacktes Format</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/raw_lens.cpp" />
            <source>Go back in the file, or make the width smaller</source>
            <translation>Gehe in der Datei zurück, oder mache die Breite kleiner</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/raw_lens.cpp" />
            <source>Leave the height open, or make the picture smaller</source>
            <translation>Lass die Höhe offen, oder mache das Bild kleiner</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/raw_lens.cpp" />
            <source>Make the pitch larger or the width smaller</source>
            <translation>Mache den Zeilenabstand größer oder die Breite kleiner</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/raw_lens.cpp" />
            <source>The picture can still be looked at</source>
            <translation>Das Bild lässt sich weiter ansehen</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/raw_lens.cpp" />
            <source>a palette has numbers of 4 or 8 bits</source>
            <translation>eine Palette hat Nummern von 4 oder 8 Bit</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/raw_lens.cpp" />
            <source>a row takes {} bytes, the pitch is {}</source>
            <translation>eine Zeile nimmt {} Byte, der Zeilenabstand ist {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/raw_lens.cpp" />
            <source>no format is chosen</source>
            <translation>kein Format ist gewählt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/raw_lens.cpp" />
            <source>sheets do not describe palettes yet</source>
            <translation>Blätter beschreiben noch keine Paletten</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/raw_lens.cpp" />
            <source>the entries of a palette cannot be {}</source>
            <translation>die Einträge einer Palette können nicht {} sein</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/raw_lens.cpp" />
            <source>there is nothing to see at this offset</source>
            <translation>an dieser Stelle ist nichts zu sehen</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/raw_lens.cpp" />
            <source>{} bytes are left, a row takes {}</source>
            <translation>{} Byte sind übrig, eine Zeile nimmt {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/raw_lens.cpp" />
            <source>{}×{} texels</source>
            <translation>{}×{} Texel</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>"{}" has a character that names here cannot have</source>
            <translation>„{}“ hat ein Zeichen, das Namen hier nicht haben können</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>Add it to the field's values in the sheet</source>
            <translation>Füge es im Blatt zu den values des Feldes hinzu</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>directory</source>
            <translation>Verzeichnis</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>field {}</source>
            <translation>Feld {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>field {}: says no byte order the sheet knows</source>
            <translation>Feld {}: sagt keine Bytefolge, die das Blatt kennt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>field {}: the sheet has no name for {}</source>
            <translation>Feld {}: das Blatt hat keinen Namen für {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>field {}: {} does not fit into {} bits</source>
            <translation>Feld {}: {} passt nicht in {} Bit</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>field {}: {} does not fit into {} bytes</source>
            <translation>Feld {}: {} passt nicht in {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>field {}: {} is no multiple of {}</source>
            <translation>Feld {}: {} ist kein Vielfaches von {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>field {}: {} is no power of two</source>
            <translation>Feld {}: {} ist keine Zweierpotenz</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>header</source>
            <translation>Kopf</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>its digest is {}…, the field {} says {}…</source>
            <translation>sein Hash ist {}…, das Feld {} sagt {}…</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>its field {}</source>
            <translation>sein Feld {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>its length is said to be {}</source>
            <translation>seine Länge soll {} sein</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>its size</source>
            <translation>seine Größe</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>its size field</source>
            <translation>sein Größenfeld</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>text of {} bytes is longer than the limit</source>
            <translation>Text von {} Byte ist länger als erlaubt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>the header is {} bytes before the end of {} bytes</source>
            <translation>der Kopf ist {} Byte vor dem Ende von {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>the number is too large</source>
            <translation>die Zahl ist zu groß</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>the record is said to end at {}</source>
            <translation>der Satz soll bei {} enden</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>{} bytes at {}</source>
            <translation>{} Byte bei {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>{} bytes at {} from the end</source>
            <translation>{} Byte bei {} vom Ende</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>{} is {:0{}x}, the {} says {:0{}x}</source>
            <translation>{} ist {:0{}x}, der {} sagt {:0{}x}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/record.cpp" />
            <source>{} values of {} bytes do not lie in {} bytes</source>
            <translation>{} Werte von {} Byte liegen nicht in {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>Paint with the palette's colors only, or let the sheet say edits = "nearest"</source>
            <translation>Male nur mit den Farben der Palette, oder lass das Blatt edits = "nearest" sagen</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>Planes are for formats whose channels are whole bytes</source>
            <translation>Planes sind für Formate, deren Kanäle ganze Bytes sind</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>The file is cut off or its header is damaged</source>
            <translation>Die Datei ist abgeschnitten, oder ihr Kopf ist beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>The order of channels is for formats whose channels are whole bytes</source>
            <translation>Die Reihenfolge der Kanäle ist für Formate, deren Kanäle ganze Bytes sind</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>a palette of {} entries for numbers of {} bits</source>
            <translation>eine Palette von {} Einträgen für Nummern von {} Bit</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>a row pitch of {} bytes, a row takes {}</source>
            <translation>ein Zeilenabstand von {} Byte, eine Zeile nimmt {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>channels = "{}" does not go with {}</source>
            <translation>channels = "{}" passt nicht zu {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>field {}: a block height of {}</source>
            <translation>Feld {}: eine Blockhöhe von {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>field {}: groups of {} rows</source>
            <translation>Feld {}: Gruppen von {} Zeilen</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>field {}: says {} bytes, only {} are there</source>
            <translation>Feld {}: sagt {} Byte, nur {} sind da</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>field {}: says {} bytes, the levels take {}</source>
            <translation>Feld {}: sagt {} Byte, die Stufen nehmen {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>mip chain</source>
            <translation>Mip-Kette</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>mip chain: needs {} bytes, has {}</source>
            <translation>Mip-Kette: braucht {} Byte, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>mip {}</source>
            <translation>Mip {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>palette: {} bytes before the end of {}</source>
            <translation>Palette: {} Byte vor dem Ende von {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>planes do not go with {}</source>
            <translation>planes passen nicht zu {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>the levels begin behind the end of the file</source>
            <translation>die Stufen beginnen hinter dem Ende der Datei</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>the levels take more bytes than any file has</source>
            <translation>die Stufen nehmen mehr Byte, als eine Datei hat</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>there is no such surface</source>
            <translation>eine solche Fläche gibt es nicht</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>tiles of columns</source>
            <translation>Kacheln aus Spalten</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>{} of {}</source>
            <translation>{} von {}</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet.cpp" />
            <source>{} texels have colors the palette does not have</source>
            <translation>{} Texel haben Farben, die die Palette nicht hat</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet_size.cpp" />
            <source>Bring the edit back to the game's size</source>
            <translation>Bringe die Bearbeitung auf die Größe des Spiels</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet_size.cpp" />
            <source>its format stays</source>
            <translation>sein Format bleibt</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet_size.cpp" />
            <source>its header cannot say {}×{} with {} levels</source>
            <translation>sein Kopf kann {}×{} mit {} Stufen nicht sagen</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet_size.cpp" />
            <source>its header counts levels that are not there</source>
            <translation>sein Kopf zählt Stufen, die nicht da sind</translation>
        </message>
        <message>
            <location filename="../../../src/sheet/texture_sheet_size.cpp" />
            <source>its sheet does not say all that follows from a size</source>
            <translation>sein Blatt sagt nicht alles, was aus einer Größe folgt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/bmp.cpp" />
            <source>Save it as an uncompressed BMP</source>
            <translation>Speichere es als ungepacktes BMP</translation>
        </message>
        <message>
            <location filename="../../../src/texture/bmp.cpp" />
            <source>a header of {} bytes</source>
            <translation>ein Kopf von {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/texture/bmp.cpp" />
            <source>header: needs 26 bytes, has {}</source>
            <translation>Kopf: braucht 26 Byte, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/bmp.cpp" />
            <source>picture data: needs {} bytes, has {}</source>
            <translation>Bilddaten: braucht {} Byte, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/bmp.cpp" />
            <source>the channel masks are missing</source>
            <translation>die Kanalmasken fehlen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/bmp.cpp" />
            <source>the channel masks overlap or have gaps</source>
            <translation>die Kanalmasken überschneiden sich oder haben Lücken</translation>
        </message>
        <message>
            <location filename="../../../src/texture/bmp.cpp" />
            <source>the picture is said to begin at {}, in the header of {} bytes</source>
            <translation>das Bild soll bei {} beginnen, im Kopf von {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/texture/bmp.cpp" />
            <source>{} bits with compression {}</source>
            <translation>{} Bit mit Kompression {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/dds.cpp" />
            <source>DX10 header: needs 20 bytes, has {}</source>
            <translation>DX10-Kopf: braucht 20 Byte, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/dds.cpp" />
            <source>DXGI format {}</source>
            <translation>DXGI-Format {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/dds.cpp" />
            <source>KTX2 can</source>
            <translation>KTX2 kann es</translation>
        </message>
        <message>
            <location filename="../../../src/texture/dds.cpp" />
            <source>The file is damaged, or no DDS file</source>
            <translation>Die Datei ist beschädigt, oder keine DDS-Datei</translation>
        </message>
        <message>
            <location filename="../../../src/texture/dds.cpp" />
            <source>This layout is not supported yet</source>
            <translation>Dieser Aufbau wird noch nicht unterstützt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/dds.cpp" />
            <source>This pixel format is not supported yet</source>
            <translation>Dieses Pixelformat wird noch nicht unterstützt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/dds.cpp" />
            <source>a DDS file cannot hold an array of {}</source>
            <translation>eine DDS-Datei kann keinen Stapel von {} fassen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/dds.cpp" />
            <source>a DDS file cannot hold {}</source>
            <translation>eine DDS-Datei kann {} nicht fassen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/dds.cpp" />
            <source>header: its size fields must be 124 and 32</source>
            <translation>Kopf: seine Größenfelder müssen 124 und 32 sein</translation>
        </message>
        <message>
            <location filename="../../../src/texture/dds.cpp" />
            <source>header: needs {} bytes, has {}</source>
            <translation>Kopf: braucht {} Byte, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/dds.cpp" />
            <source>pixel format "{}" ({})</source>
            <translation>Pixelformat „{}“ ({})</translation>
        </message>
        <message>
            <location filename="../../../src/texture/dds.cpp" />
            <source>pixel format: {} bits with masks {:08x} {:08x} {:08x} {:08x}</source>
            <translation>Pixelformat: {} Bit mit Masken {:08x} {:08x} {:08x} {:08x}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/dds_palette.cpp" />
            <source>palette and mip chain: need {} bytes, have {}</source>
            <translation>Palette und Mip-Kette: brauchen {} Byte, haben {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>No picture packs so well; the header is damaged or made to do harm</source>
            <translation>So gut lässt sich kein Bild packen; der Kopf ist beschädigt oder soll schaden</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>Save it with scan lines</source>
            <translation>Speichere es mit Bildzeilen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>Save the picture as RGB</source>
            <translation>Speichere das Bild als RGB</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>Single pictures are read</source>
            <translation>Einzelne Bilder sind lesbar</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>a tiled OpenEXR file is only read</source>
            <translation>eine gekachelte OpenEXR-Datei wird nur gelesen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>an attribute needs {} bytes, {} are there</source>
            <translation>ein Attribut braucht {} Byte, {} sind da</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>attribute {} is no {} of {} bytes</source>
            <translation>Attribut {} ist kein {} von {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>channel {} is subsampled</source>
            <translation>Kanal {} ist gröber abgetastet</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>claims {}×{} texels, {}, in a file of {} bytes</source>
            <translation>behauptet {}×{} Texel, {}, in einer Datei von {} Bytes</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>neither R, G and B nor Y alone are among its channels</source>
            <translation>weder R, G und B noch Y allein sind unter seinen Kanälen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>several parts or deep data</source>
            <translation>mehrere Teile oder tiefe Daten</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>the data window is empty</source>
            <translation>das Datenfenster ist leer</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>the header is cut off</source>
            <translation>der Kopf ist abgeschnitten</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>the picture has another size</source>
            <translation>das Bild hat eine andere Größe</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>the table of its {} pieces does not fit into {} bytes</source>
            <translation>die Tabelle seiner {} Stücke passt nicht in {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/texture/exr.cpp" />
            <source>{}×{} texels are more than the limit</source>
            <translation>{}×{} Texel sind mehr als die Grenze</translation>
        </message>
        <message>
            <location filename="../../../src/texture/jpeg.cpp" />
            <source>Gray and RGB are read; save it without CMYK</source>
            <translation>Grau und RGB sind lesbar; speichere es ohne CMYK</translation>
        </message>
        <message>
            <location filename="../../../src/texture/jpeg.cpp" />
            <source>Save it anew; a progressive file has about ten</source>
            <translation>Speichere es neu; eine progressive Datei hat etwa zehn</translation>
        </message>
        <message>
            <location filename="../../../src/texture/jpeg.cpp" />
            <source>The file is cut off; what is there is shown</source>
            <translation>Die Datei ist abgeschnitten; was da ist, wird gezeigt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/jpeg.cpp" />
            <source>The picture can be shown, but nothing can be put into it</source>
            <translation>Das Bild lässt sich zeigen, aber nichts lässt sich hineintun</translation>
        </message>
        <message>
            <location filename="../../../src/texture/jpeg.cpp" />
            <source>a quantization table holds a zero (ITU-T T.81 B.2.4.1 wants 1 or more)</source>
            <translation>eine Quantisierungstabelle enthält eine Null (ITU-T T.81 B.2.4.1 will 1 oder mehr)</translation>
        </message>
        <message>
            <location filename="../../../src/texture/jpeg.cpp" />
            <source>many more scans than a picture of its size has</source>
            <translation>viel mehr Durchläufe, als ein Bild dieser Größe hat</translation>
        </message>
        <message>
            <location filename="../../../src/texture/jpeg.cpp" />
            <source>picture data: the end marker (EOI) is missing</source>
            <translation>Bilddaten: die Endmarke (EOI) fehlt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/jpeg.cpp" />
            <source>{} color components</source>
            <translation>{} Farbanteile</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx.cpp" />
            <source>DDS or KTX2 can</source>
            <translation>DDS oder KTX2 können es</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx.cpp" />
            <source>Only single bytes and compressed blocks are read from big-endian files</source>
            <translation>Aus Dateien mit hohem Byte zuerst werden nur einzelne Bytes und gepackte Blöcke gelesen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx.cpp" />
            <source>OpenGL format {:#x} with type {:#x}</source>
            <translation>OpenGL-Format {:#x} mit Typ {:#x}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx.cpp" />
            <source>a KTX file cannot hold {}</source>
            <translation>eine KTX-Datei kann {} nicht fassen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx.cpp" />
            <source>a KTX file's format stays; {} was asked for</source>
            <translation>das Format einer KTX-Datei bleibt; {} war gefragt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx.cpp" />
            <source>big-endian texels of {} bytes</source>
            <translation>Texel von {} Byte mit hohem Byte zuerst</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx.cpp" />
            <source>mip {}: needs {} bytes, has {}</source>
            <translation>Mip {}: braucht {} Byte, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx.cpp" />
            <source>the byte order mark is neither 04030201 nor its reverse</source>
            <translation>die Marke der Bytefolge ist weder 04030201 noch umgekehrt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx.cpp" />
            <source>{} faces; a texture has 1, a cubemap 6</source>
            <translation>{} Flächen; eine Textur hat 1, eine Würfelkarte 6</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>Basis Universal (ETC1S with BasisLZ)</source>
            <translation>Basis Universal (ETC1S mit BasisLZ)</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>Basis Universal ({})</source>
            <translation>Basis Universal ({})</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>DDS or PNG can</source>
            <translation>DDS oder PNG können es</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>No picture packs so well; the index is damaged or made to do harm</source>
            <translation>So gut lässt sich kein Bild packen; der Index ist beschädigt oder soll schaden</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>None, Zstandard (2) and zlib (3) are read</source>
            <translation>Keine, Zstandard (2) und zlib (3) sind lesbar</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>The file is cut off or its index is damaged</source>
            <translation>Die Datei ist abgeschnitten, oder ihr Verzeichnis ist beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>This format is not read; store the texture as plain KTX2 or DDS</source>
            <translation>Dieses Format wird nicht gelesen; lege die Textur als einfaches KTX2 oder DDS ab</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>This supercompression is not read; store the texture as plain KTX2 or DDS</source>
            <translation>Diese Überpackung wird nicht gelesen; lege die Textur als einfaches KTX2 oder DDS ab</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>VkFormat {}</source>
            <translation>VkFormat {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>Zstandard: {}</source>
            <translation>Zstandard: {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>a KTX2 file cannot hold {}</source>
            <translation>eine KTX2-Datei kann {} nicht fassen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>level index: needs {} bytes, has {}</source>
            <translation>Stufenverzeichnis: braucht {} Byte, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>mip {} would unpack to {}</source>
            <translation>Mip {} würde sich zu {} entpacken</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>mip {}: needs {} bytes at {}, the file has {}</source>
            <translation>Mip {}: braucht {} Byte bei {}, die Datei hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>mip {}: {} bytes are said to unpack to {}</source>
            <translation>Mip {}: {} Bytes sollen entpackt {} ergeben</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>supercompression scheme {}</source>
            <translation>Überpackung {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>the Zstandard stream ends early</source>
            <translation>der Zstandard-Strom endet zu früh</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>the zlib stream is damaged</source>
            <translation>der zlib-Strom ist beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>unpacks to {} bytes, needs {}</source>
            <translation>entpackt sich zu {} Byte, braucht {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/ktx2.cpp" />
            <source>zlib: out of memory</source>
            <translation>zlib: kein Speicher mehr</translation>
        </message>
        <message>
            <location filename="../../../src/texture/png.cpp" />
            <source>PNG header: {}×{} texels are more than the limit</source>
            <translation>PNG-Kopf: {}×{} Texel sind mehr als erlaubt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/png.cpp" />
            <source>PNG picture data</source>
            <translation>Bilddaten des PNG</translation>
        </message>
        <message>
            <location filename="../../../src/texture/png.cpp" />
            <source>Save the original with an alpha channel, or without transparency</source>
            <translation>Speichere das Original mit einem Alphakanal, oder ohne Durchsicht</translation>
        </message>
        <message>
            <location filename="../../../src/texture/png.cpp" />
            <source>Save the original with whole bytes a sample</source>
            <translation>Speichere das Original mit ganzen Bytes je Wert</translation>
        </message>
        <message>
            <location filename="../../../src/texture/png.cpp" />
            <source>a PNG whose transparency is one color (tRNS) cannot be written back</source>
            <translation>ein PNG, dessen Durchsicht eine Farbe ist (tRNS), lässt sich nicht zurückschreiben</translation>
        </message>
        <message>
            <location filename="../../../src/texture/png.cpp" />
            <source>a PNG with a palette or less than 8 bits a sample keeps its size</source>
            <translation>ein PNG mit Palette oder weniger als 8 Bit je Wert behält seine Größe</translation>
        </message>
        <message>
            <location filename="../../../src/texture/png.cpp" />
            <source>a palette of {} entries</source>
            <translation>eine Palette von {} Einträgen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/png.cpp" />
            <source>header: needs 33 bytes, has {}</source>
            <translation>Kopf: braucht 33 Byte, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/png.cpp" />
            <source>the end chunk (IEND) is missing</source>
            <translation>das Endstück (IEND) fehlt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/png.cpp" />
            <source>the first chunk must be IHDR</source>
            <translation>das erste Stück muss IHDR sein</translation>
        </message>
        <message>
            <location filename="../../../src/texture/png.cpp" />
            <source>the last chunk: needs {} bytes more</source>
            <translation>das letzte Stück: braucht {} Byte mehr</translation>
        </message>
        <message>
            <location filename="../../../src/texture/radiance.cpp" />
            <source>RGBE is read; XYZE is not</source>
            <translation>RGBE ist lesbar; XYZE nicht</translation>
        </message>
        <message>
            <location filename="../../../src/texture/radiance.cpp" />
            <source>Rows from the top or the bottom are read</source>
            <translation>Zeilen von oben oder von unten sind lesbar</translation>
        </message>
        <message>
            <location filename="../../../src/texture/radiance.cpp" />
            <source>a run goes beyond its row</source>
            <translation>ein Lauf geht über seine Zeile hinaus</translation>
        </message>
        <message>
            <location filename="../../../src/texture/radiance.cpp" />
            <source>colors as "{}"</source>
            <translation>Farben als „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/texture/radiance.cpp" />
            <source>picture data: needs {} bytes at least, has {}</source>
            <translation>Bilddaten: braucht mindestens {} Byte, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/radiance.cpp" />
            <source>row {}</source>
            <translation>Zeile {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/radiance.cpp" />
            <source>the header does not end</source>
            <translation>der Kopf endet nicht</translation>
        </message>
        <message>
            <location filename="../../../src/texture/radiance.cpp" />
            <source>the orientation "{}"</source>
            <translation>die Lage „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/texture/radiance.cpp" />
            <source>the size "{}"</source>
            <translation>die Größe „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/texture/radiance.cpp" />
            <source>the size is missing</source>
            <translation>die Größe fehlt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/spread.cpp" />
            <source>It belongs to another texture or is cut off</source>
            <translation>Sie gehört zu einer anderen Textur oder ist abgeschnitten</translation>
        </message>
        <message>
            <location filename="../../../src/texture/spread.cpp" />
            <source>levels need</source>
            <translation>Stufen brauchen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/spread.cpp" />
            <source>palette needs</source>
            <translation>Palette braucht</translation>
        </message>
        <message>
            <location filename="../../../src/texture/spread.cpp" />
            <source>{} is missing: the palette is in it</source>
            <translation>{} fehlt: die Palette ist darin</translation>
        </message>
        <message>
            <location filename="../../../src/texture/spread.cpp" />
            <source>{}: its {} {} bytes, it has {}</source>
            <translation>{}: seine {} {} Byte, es hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/spread.cpp" />
            <source>{}: levels of {} bytes</source>
            <translation>{}: Stufen von {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source> · {} faces</source>
            <translation> · {} Flächen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source> · {} layers</source>
            <translation> · {} Lagen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source>1 level</source>
            <translation>1 Stufe</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source>Texture files ({}), pictures ({}) and what a texture sheet describes are read</source>
            <translation>Texturdateien ({}), Bilder ({}) und was ein Texturblatt beschreibt sind lesbar</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source>a size of {}×{}×{} texels</source>
            <translation>eine Größe von {}×{}×{} Texeln</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source>an array or cubemap of volumes</source>
            <translation>ein Stapel oder Würfel von Volumen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source>lies in a file that is not there</source>
            <translation>liegt in einer Datei, die nicht da ist</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source>mip chain: {} levels stated, {}×{} can have at most {}</source>
            <translation>Mip-Kette: {} Stufen genannt, {}×{} kann höchstens {} haben</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source>mip {} is not there to be replaced</source>
            <translation>Mip {} ist nicht da, um ersetzt zu werden</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source>there is no level 0</source>
            <translation>es gibt keine Stufe 0</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source>there is no mip {}, layer {}, face {}, slice {}</source>
            <translation>es gibt kein Mip {}, Lage {}, Fläche {}, Schicht {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source>this is no texture we know</source>
            <translation>das ist keine bekannte Textur</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source>{} layers with {} faces</source>
            <translation>{} Lagen mit {} Flächen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source>{} mips</source>
            <translation>{} Mips</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source>{} textures keep their size</source>
            <translation>{}-Texturen behalten ihre Größe</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source>{}×{}×{} texels are more than the limit</source>
            <translation>{}×{}×{} Texel sind mehr als erlaubt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/texture.cpp" />
            <source>×{} slices</source>
            <translation>×{} Schichten</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tga.cpp" />
            <source>TGA holds at most 65,535 texels a side</source>
            <translation>TGA fasst höchstens 65.535 Texel je Seite</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tga.cpp" />
            <source>This layout is not supported</source>
            <translation>Dieser Aufbau wird nicht unterstützt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tga.cpp" />
            <source>image type {} with {} bits</source>
            <translation>Bildtyp {} mit {} Bit</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tga.cpp" />
            <source>picture data: needs {} texels, has {}</source>
            <translation>Bilddaten: braucht {} Texel, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>, in planes</source>
            <translation>, in getrennten Ebenen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>Gray, RGB and RGBA of 8 and 16 bits and floats are read</source>
            <translation>Grau, RGB und RGBA mit 8 und 16 Bit und Gleitkommazahlen sind lesbar</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>Save the original as RGB</source>
            <translation>Speichere das Original als RGB</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>The file is cut off</source>
            <translation>Die Datei ist abgeschnitten</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>a TIFF with a palette is only read</source>
            <translation>ein TIFF mit Palette wird nur gelesen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>a strip or tile of more than a gigabyte</source>
            <translation>ein Streifen oder eine Kachel von mehr als einem Gigabyte</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>a value of the directory: needs {} bytes at {}, the file has {}</source>
            <translation>ein Wert des Verzeichnisses: braucht {} Byte bei {}, die Datei hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>cannot begin a TIFF file</source>
            <translation>eine TIFF-Datei lässt sich nicht beginnen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>cannot end the file</source>
            <translation>die Datei lässt sich nicht beenden</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>cannot write a row</source>
            <translation>eine Zeile lässt sich nicht schreiben</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>strip {}</source>
            <translation>Streifen {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>strips or tiles of {}×{} texels in {} bytes</source>
            <translation>Streifen oder Kacheln von {}×{} Texeln in {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>the color map is missing</source>
            <translation>die Farbtabelle fehlt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>the colors are inks (CMYK)</source>
            <translation>die Farben sind Druckfarben (CMYK)</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>the directory of a TIFF file can lie anywhere, so all of it is needed</source>
            <translation>das Verzeichnis einer TIFF-Datei kann überall liegen, also wird die ganze gebraucht</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>the photometric interpretation is missing</source>
            <translation>die Deutung der Farben fehlt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>the tile size is missing</source>
            <translation>die Kachelgröße fehlt</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>tile {}</source>
            <translation>Kachel {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>writing strip {}</source>
            <translation>beim Schreiben von Streifen {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>writing the directory</source>
            <translation>beim Schreiben des Verzeichnisses</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>writing tile {}</source>
            <translation>beim Schreiben von Kachel {}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/tiff.cpp" />
            <source>{} samples of {} bits, photometric interpretation {}{}</source>
            <translation>{} Werte von {} Bit, Deutung der Farben {}{}</translation>
        </message>
        <message>
            <location filename="../../../src/texture/webp.cpp" />
            <source>Still pictures are read</source>
            <translation>Stehende Bilder sind lesbar</translation>
        </message>
        <message>
            <location filename="../../../src/texture/webp.cpp" />
            <source>an animated picture</source>
            <translation>ein bewegtes Bild</translation>
        </message>
        <message>
            <location filename="../../../src/texture/webp.cpp" />
            <source>libwebp could not encode the picture (error {})</source>
            <translation>libwebp konnte das Bild nicht kodieren (Fehler {})</translation>
        </message>
        <message>
            <location filename="../../../src/texture/webp.cpp" />
            <source>libwebp has another version than at build time</source>
            <translation>libwebp hat eine andere Version als beim Bauen</translation>
        </message>
        <message>
            <location filename="../../../src/texture/webp.cpp" />
            <source>the header ends after {} bytes</source>
            <translation>der Kopf endet nach {} Byte</translation>
        </message>
        <message>
            <location filename="../../../src/texture/webp.cpp" />
            <source>the header is no sound WebP header</source>
            <translation>der Kopf ist kein heiler WebP-Kopf</translation>
        </message>
        <message>
            <location filename="../../../src/texture/webp.cpp" />
            <source>the picture data is cut off or damaged</source>
            <translation>die Bilddaten sind abgeschnitten oder beschädigt</translation>
        </message>
        <message>
            <location filename="../../../src/tiling/tiling.cpp" />
            <source>bits are the letters x and y, at most 12 of each, from the lowest bit of a position on, such as "xyxyxy"</source>
            <translation>bits sind die Buchstaben x und y, höchstens 12 von jedem, vom niedrigsten Bit einer Stelle an, etwa „xyxyxy“</translation>
        </message>
        <message>
            <location filename="../../../src/tiling/tiling.cpp" />
            <source>tiled level of {}×{}: needs {} bytes, has {}</source>
            <translation>gekachelte Stufe von {}×{}: braucht {} Byte, hat {}</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Alpha from a picture</source>
            <translation>Alpha aus einem Bild</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Alpha from gray</source>
            <translation>Alpha aus Grau</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Amount</source>
            <translation>Stärke</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>At the borders</source>
            <translation>An den Rändern</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Bleed color</source>
            <translation>Farbe ausdehnen</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Brighten</source>
            <translation>Aufhellen</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Contrast</source>
            <translation>Kontrast</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Crop</source>
            <translation>Beschneiden</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Cut alpha</source>
            <translation>Alpha abschneiden</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Degrees</source>
            <translation>Grad</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Factor</source>
            <translation>Faktor</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Filter</source>
            <translation>Filter</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Flip green</source>
            <translation>Grün umdrehen</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>From</source>
            <translation>Aus</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>From alpha</source>
            <translation>Ab Alpha</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Gray</source>
            <translation>Grau</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Green points</source>
            <translation>Grün zeigt</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Height, in texels</source>
            <translation>Höhe, in Texeln</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Hue</source>
            <translation>Farbton</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Invert alpha</source>
            <translation>Alpha umkehren</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Lines are</source>
            <translation>Linien sind</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Move a channel</source>
            <translation>Kanal verlegen</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Normals from height</source>
            <translation>Normalen aus Höhe</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Of the picture</source>
            <translation>Aus dem Bild</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Outlines</source>
            <translation>Umrisse</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Pad</source>
            <translation>Auffüllen</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Radius, in texels</source>
            <translation>Radius, in Texeln</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Rebuild Z</source>
            <translation>Z neu bilden</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Recolor</source>
            <translation>Umfärben</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Resize</source>
            <translation>Größe ändern</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Saturate</source>
            <translation>Sättigen</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Set alpha</source>
            <translation>Alpha setzen</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Sharpen</source>
            <translation>Schärfen</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>So far, in texels (0: all)</source>
            <translation>So weit, in Texeln (0: alle)</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Soften</source>
            <translation>Weichzeichnen</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Stops of light</source>
            <translation>Lichtblenden</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Strength</source>
            <translation>Stärke</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Tint</source>
            <translation>Tönen</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>To a multiple of</source>
            <translation>Auf ein Vielfaches von</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Turn hues</source>
            <translation>Farbtöne drehen</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Values are</source>
            <translation>Werte sind</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>Visible from alpha</source>
            <translation>Sichtbar ab Alpha</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>a Gaussian blur, in light</source>
            <translation>eine gaußsche Unschärfe, im Licht</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>a map of the picture's edges</source>
            <translation>eine Karte der Kanten des Bildes</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>a normal map for the other convention</source>
            <translation>eine Normalenkarte für die andere Konvention</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>a normal map from the picture's gray as height</source>
            <translation>eine Normalenkarte aus dem Grau des Bildes als Höhe</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>alpha is another picture's gray</source>
            <translation>Alpha ist das Grau eines anderen Bildes</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>alpha is what the picture's gray is</source>
            <translation>Alpha ist, was das Grau des Bildes ist</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>amount</source>
            <translation>Stärke</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>another hue, as light and as strong as before</source>
            <translation>ein anderer Farbton, so hell und so kräftig wie zuvor</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>another size</source>
            <translation>eine andere Größe</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>at</source>
            <translation>ab</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>blue of a normal map from red and green</source>
            <translation>Blau einer Normalenkarte aus Rot und Grün</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>border</source>
            <translation>Rand</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>catmull rom</source>
            <translation>Catmull-Rom</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>color of visible texels goes on under clear ones</source>
            <translation>die Farbe sichtbarer Texel geht unter klaren weiter</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>colors further from their gray, or nearer</source>
            <translation>Farben weiter von ihrem Grau weg, oder näher</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>dark</source>
            <translation>dunkel</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>data</source>
            <translation>Daten</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>degrees</source>
            <translation>Grad</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>down</source>
            <translation>nach unten</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>edges stand out more</source>
            <translation>Kanten treten mehr hervor</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>every hue further round the circle</source>
            <translation>jeder Farbton weiter im Kreis</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>factor</source>
            <translation>Faktor</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>file</source>
            <translation>Bild</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>filter</source>
            <translation>Filter</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>from</source>
            <translation>aus</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>gaussian</source>
            <translation>Gauß</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>gray</source>
            <translation>Grau</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>hue</source>
            <translation>Farbton</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>kaiser</source>
            <translation>Kaiser</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>lanczos</source>
            <translation>Lanczos</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>lines</source>
            <translation>Linien</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>mitchell</source>
            <translation>Mitchell</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>multiple</source>
            <translation>Vielfaches</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>one channel from another, of this picture or of another one</source>
            <translation>ein Kanal aus einem anderen, dieses Bildes oder eines anderen</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>opaque from there on, clear below</source>
            <translation>deckend von dort an, klar darunter</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>radius</source>
            <translation>Radius</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>sides down to a multiple</source>
            <translation>Seiten hinunter auf ein Vielfaches</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>sides up to a multiple; the last row and column go on</source>
            <translation>Seiten hinauf auf ein Vielfaches; die letzte Zeile und Spalte gehen weiter</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>stops</source>
            <translation>Blenden</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>strength</source>
            <translation>Stärke</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>texels</source>
            <translation>Texel</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>the gray of the same luminance</source>
            <translation>das Grau gleicher Leuchtdichte</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>the same alpha everywhere</source>
            <translation>überall dasselbe Alpha</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>this color's hue and strength, as light as before; grays too</source>
            <translation>Ton und Kraft dieser Farbe, so hell wie zuvor; auch Grau</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>to</source>
            <translation>nach</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>twice the light for each stop</source>
            <translation>doppelt so viel Licht je Blende</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>up</source>
            <translation>nach oben</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>value</source>
            <translation>Wert</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>values</source>
            <translation>Werte</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>values further from the middle, or nearer</source>
            <translation>Werte weiter von der Mitte weg, oder näher</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>what was clear becomes opaque</source>
            <translation>was klar war, wird deckend</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>width</source>
            <translation>Breite</translation>
        </message>
        <message>
            <location filename="../../../src/touch/rows.cpp" />
            <source>wrapped</source>
            <translation>herumlaufend</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>"{}" is no mask</source>
            <translation>„{}“ ist keine Maske</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>, or nothing</source>
            <translation>, oder nichts</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>; away from {}</source>
            <translation>; fern von {}</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>; near {}</source>
            <translation>; nahe {}</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>; where {} is bright</source>
            <translation>; wo {} hell ist</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>; where {} is dark</source>
            <translation>; wo {} dunkel ist</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>; where {} is high</source>
            <translation>; wo {} hoch ist</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>; where {} is low</source>
            <translation>; wo {} niedrig ist</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>; {} if not said</source>
            <translation>; {}, wenn nicht gesagt</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>A mask is red, green, blue, alpha or gray, a color with how near (#a03020~0.1, up to 2), or a picture (@areas.png); "not " before it turns it around</source>
            <translation>Eine Maske ist red, green, blue, alpha oder gray, eine Farbe mit Nähe (#a03020~0.1, bis 2), oder ein Bild (@areas.png); „not “ davor dreht sie um</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>Give it the picture's size</source>
            <translation>Gib ihm die Größe des Bildes</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>It takes {}</source>
            <translation>Es nimmt {}</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>There are:
{}</source>
            <translation>Es gibt:
{}</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>a color like #a03020</source>
            <translation>eine Farbe wie #a03020</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>a number from {} to {}</source>
            <translation>eine Zahl von {} bis {}</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>not </source>
            <translation>nicht </translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>one of {}</source>
            <translation>eines von {}</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>the name of a picture file</source>
            <translation>der Name einer Bilddatei</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>there is no touch-up "{}"</source>
            <translation>es gibt keine Retusche „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>{} are possible</source>
            <translation>{} sind möglich</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>{}: a size cannot have a mask</source>
            <translation>{}: eine Größe kann keine Maske haben</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>{}: nothing takes "{}"</source>
            <translation>{}: nichts nimmt „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>{}: the picture would have up to {} texels</source>
            <translation>{}: das Bild hätte bis zu {} Texel</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>{}: {} has to be said</source>
            <translation>{}: {} muss gesagt werden</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>{}: {} is "{}"</source>
            <translation>{}: {} ist „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>{}: {} is said twice</source>
            <translation>{}: {} ist zweimal gesagt</translation>
        </message>
        <message>
            <location filename="../../../src/touch/touch_up.cpp" />
            <source>{}: {} is {}×{}, the picture {}×{}</source>
            <translation>{}: {} ist {}×{}, das Bild {}×{}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/bring_in.cpp" />
            <source>Bring in its folders one by one</source>
            <translation>Hole seine Ordner einzeln herein</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/bring_in.cpp" />
            <source>an edit of it is on the bench, and would become a version</source>
            <translation>eine Bearbeitung davon liegt auf der Werkbank und würde zur Fassung</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/bring_in.cpp" />
            <source>another one fits as well</source>
            <translation>eine andere passt auch</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/bring_in.cpp" />
            <source>bare name</source>
            <translation>bloßer Name</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/bring_in.cpp" />
            <source>it only looks alike</source>
            <translation>es sieht nur ähnlich aus</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/bring_in.cpp" />
            <source>its sides are {}×{}, the texture's {}×{}</source>
            <translation>seine Seiten sind {}×{}, die der Textur {}×{}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/bring_in.cpp" />
            <source>name</source>
            <translation>Name</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/bring_in.cpp" />
            <source>path</source>
            <translation>Pfad</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/bring_in.cpp" />
            <source>picture</source>
            <translation>Bild</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/bring_in.cpp" />
            <source>the names are alike only without their endings</source>
            <translation>die Namen gleichen sich nur ohne ihre Endungen</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/bring_in.cpp" />
            <source>{} files are for this texture</source>
            <translation>{} Dateien sind für diese Textur</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/bring_in.cpp" />
            <source>{} holds more than {} pictures</source>
            <translation>{} enthält mehr als {} Bilder</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/bring_in.cpp" />
            <source>{} others fit as well</source>
            <translation>{} andere passen auch</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/delivery_plan.cpp" />
            <source>Undo the newer change first, or take the parcel out of the stack</source>
            <translation>Nimm erst die neuere Änderung zurück, oder nimm das Paket aus dem Stapel</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/delivery_plan.cpp" />
            <source>the parcels were changed again since</source>
            <translation>die Pakete wurden seitdem noch einmal geändert</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/delivery_plan.cpp" />
            <source>there is nothing to deliver</source>
            <translation>es gibt nichts zu liefern</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/delivery_plan.cpp" />
            <source>{} archives</source>
            <translation>{} Archive</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/delivery_plan.cpp" />
            <source>{} becomes {} in {}</source>
            <translation>{} heißt {} in {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/delivery_plan.cpp" />
            <source>{} entries renamed or taken out</source>
            <translation>{} Einträge umbenannt oder herausgenommen</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/delivery_plan.cpp" />
            <source>{} given back in {}</source>
            <translation>{} in {} zurückgegeben</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/delivery_plan.cpp" />
            <source>{} into {}</source>
            <translation>{} in {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/delivery_plan.cpp" />
            <source>{} pieces</source>
            <translation>{} Stücke</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/delivery_plan.cpp" />
            <source>{} taken out of {}</source>
            <translation>{} aus {} genommen</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/games.cpp" />
            <source>It was set aside as {}; projects that lie elsewhere can be opened by their folder</source>
            <translation>Sie wurde als {} beiseitegelegt; Projekte an anderen Orten lassen sich über ihren Ordner öffnen</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/games.cpp" />
            <source>a project needs a name</source>
            <translation>ein Projekt braucht einen Namen</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/games.cpp" />
            <source>cannot make the project's folder {}</source>
            <translation>der Ordner {} des Projekts kann nicht angelegt werden</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/games.cpp" />
            <source>the list of games cannot be read</source>
            <translation>die Liste der Spiele kann nicht gelesen werden</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/games.cpp" />
            <source>the project's folder is not there</source>
            <translation>der Ordner des Projekts ist nicht da</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/games.cpp" />
            <source>there are too many projects named {} in {}</source>
            <translation>es gibt zu viele Projekte namens {} in {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/kin.cpp" />
            <source>A map made of it stays unchanged</source>
            <translation>Eine daraus gemachte Karte bleibt unverändert</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/kin.cpp" />
            <source>A twin stays unchanged</source>
            <translation>Ein Zwilling bleibt unverändert</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/kin.cpp" />
            <source>Let it follow</source>
            <translation>Folgen lassen</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/kin.cpp" />
            <source>Reduced copies stay unchanged</source>
            <translation>Verkleinerte Kopien bleiben unverändert</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/kin.cpp" />
            <source>Scale them too</source>
            <translation>Mitskalieren</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/kin.cpp" />
            <source>The copies stay unchanged</source>
            <translation>Die Kopien bleiben unverändert</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/kin.cpp" />
            <source>The maps of its set stay larger</source>
            <translation>Die Karten ihres Satzes bleiben größer</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/kin.cpp" />
            <source>The maps of its set stay smaller</source>
            <translation>Die Karten ihres Satzes bleiben kleiner</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/kin.cpp" />
            <source>The reduced copy stays unchanged</source>
            <translation>Die verkleinerte Kopie bleibt unverändert</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/kin.cpp" />
            <source>The same picture is also in {}; the game goes on showing the old one there.</source>
            <translation>Dasselbe Bild ist auch in {}; dort zeigt das Spiel weiter das alte.</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/kin.cpp" />
            <source>This one is {:.3g} times as wide as before; {} are not.</source>
            <translation>Diese ist {:.3Lg}-mal so breit wie vorher; {} sind es nicht.</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/kin.cpp" />
            <source>This one is {:.3g} times as wide as before; {} is not.</source>
            <translation>Diese ist {:.3Lg}-mal so breit wie vorher; {} ist es nicht.</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/kin.cpp" />
            <source>{} cannot have another size: its file does not say its own</source>
            <translation>{} kann keine andere Größe haben: seine Datei sagt die eigene nicht</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/kin.cpp" />
            <source>{} shows {}; it can be made of your picture the same way.</source>
            <translation>{} zeigt {}; sie kann aus deinem Bild auf dieselbe Weise gemacht werden.</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/open_with.cpp" />
            <source>There are {file}, {folder}, {alpha} and {name}; {{ is a brace</source>
            <translation>Es gibt {file}, {folder}, {alpha} und {name}; {{ ist eine Klammer</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/open_with.cpp" />
            <source>{{{} is no placeholder</source>
            <translation>{{{} ist kein Platzhalter</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/opening.cpp" />
            <source>Choose another --project for this game, or leave --project out</source>
            <translation>Wähle ein anderes --project für dieses Spiel, oder lass --project weg</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/opening.cpp" />
            <source>the project {} is about the game in {}, not {}</source>
            <translation>das Projekt {} gilt dem Spiel in {}, nicht {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/own_layer.cpp" />
            <source>a file in delivered/ is empty</source>
            <translation>eine Datei in delivered/ ist leer</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcel_stack.cpp" />
            <source>"{}" was delivered before this project kept what it delivers</source>
            <translation>„{}“ wurde geliefert, bevor dieses Projekt behielt, was es liefert</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcel_stack.cpp" />
            <source>Undo it, install the parcel and deliver it again</source>
            <translation>Nimm es zurück, installiere das Paket und liefere es noch einmal</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>"{}" does not go with {}, which is installed</source>
            <translation>„{}“ verträgt sich nicht mit {}, das installiert ist</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>"{}" needs it</source>
            <translation>„{}“ braucht es</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>"{}" needs {}{}, which is not installed</source>
            <translation>„{}“ braucht {}{}, das nicht installiert ist</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>"{}", which is installed, does not go with "{}"</source>
            <translation>„{}“, das installiert ist, verträgt sich nicht mit „{}“</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>Install that one first</source>
            <translation>Installiere das erst</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>Its folders must mirror the game's; or bring its pictures in by what they show</source>
            <translation>Seine Ordner müssen denen des Spiels gleichen; oder hole seine Bilder nach dem herein, was sie zeigen</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>Mend it first</source>
            <translation>Bessere es erst nach</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>See what each texture is said to lack</source>
            <translation>Sieh, was jeder Textur fehlen soll</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>Take that one out first</source>
            <translation>Nimm das erst heraus</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>another texture of the parcel goes there</source>
            <translation>eine andere Textur des Pakets kommt dorthin</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>does not fit</source>
            <translation>passt nicht</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>fits</source>
            <translation>passt</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>here it is {}</source>
            <translation>hier ist es {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>name is taken</source>
            <translation>der Name ist vergeben</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>no parcel "{}" is installed</source>
            <translation>kein Paket „{}“ ist installiert</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>not found</source>
            <translation>nicht gefunden</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>nothing of "{}" fits this game</source>
            <translation>nichts von „{}“ passt zu diesem Spiel</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>other version</source>
            <translation>andere Version</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>the game has an entry of this name</source>
            <translation>das Spiel hat einen Eintrag dieses Namens</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>the game's texture changed elsewhere</source>
            <translation>die Textur des Spiels hat sich anderswo geändert</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>whole</source>
            <translation>ganz</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>{} are more than a parcel has</source>
            <translation>{} sind mehr, als ein Paket hat</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>{} holds no texture that this game has under the same path</source>
            <translation>{} enthält keine Textur, die dieses Spiel unter demselben Pfad hat</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>{} installed</source>
            <translation>{} hineingebracht</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>{} of {} changed places hold something else here</source>
            <translation>{} von {} geänderten Stellen enthalten hier etwas anderes</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>{} taken out</source>
            <translation>{} herausgenommen</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>{} {} in the game</source>
            <translation>{} {} im Spiel</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/parcels.cpp" />
            <source>{} {} with {} mips here, {} {} with {} there</source>
            <translation>{} {} mit {} Mips hier, {} {} mit {} dort</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/pieces.cpp" />
            <source>Save all of them in the same size</source>
            <translation>Speichere alle in derselben Größe</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/pieces.cpp" />
            <source>the project has no such piece</source>
            <translation>das Projekt hat kein solches Stück</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/pieces.cpp" />
            <source>{} is {}×{}, {} {}×{}</source>
            <translation>{} ist {}×{}, {} {}×{}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>"{}" sets nothing</source>
            <translation>„{}“ setzt nichts</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>In {}, as {}</source>
            <translation>In {}, als {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>Named {}, and listed in {}</source>
            <translation>Namens {}, und in {} eingetragen</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>Named {}, in no list</source>
            <translation>Namens {}, in keiner Liste</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>No card or device is chosen yet</source>
            <translation>Noch ist keine Karte und kein Gerät gewählt</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>There are {name} and {n}</source>
            <translation>Es gibt {name} und {n}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>There are {path}, {file}, {archive} and {group}</source>
            <translation>Es gibt {path}, {file}, {archive} und {group}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>Write NAME=value</source>
            <translation>Schreibe NAME=Wert</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>Write a name, as patch_{n}</source>
            <translation>Schreibe einen Namen, etwa patch_{n}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>Write it as mods/{path}</source>
            <translation>Schreibe es als mods/{path}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>Write it relative to the game's folder</source>
            <translation>Schreibe es vom Ordner des Spiels aus</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>Write it relative to the game's folder, as data/override</source>
            <translation>Schreibe es vom Ordner des Spiels aus, etwa data/override</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>Write it relative to the game's folder, or - for none</source>
            <translation>Schreibe es vom Ordner des Spiels aus, oder - für keine</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>a patch archive's name has an unknown word in braces: {}</source>
            <translation>der Name eines Patch-Archivs hat ein unbekanntes Wort in Klammern: {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>patch archives lie beside the archive they change: {} is no name</source>
            <translation>Patch-Archive liegen neben dem Archiv, das sie ändern: {} ist kein Name</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>the device's files</source>
            <translation>die Dateien des Geräts</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>the device's folder must be a whole path: {}</source>
            <translation>der Ordner des Geräts muss ein ganzer Pfad sein: {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>the folder for loose files must lie inside the game's: {}</source>
            <translation>der Ordner für lose Dateien muss im Ordner des Spiels liegen: {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>the game's log must lie inside its folder: {}</source>
            <translation>das Protokoll des Spiels muss in seinem Ordner liegen: {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>the layout of {} has an unknown word in braces: {}</source>
            <translation>die Anordnung für {} hat ein unbekanntes Wort in Klammern: {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>the layout of {} is no path: {}</source>
            <translation>die Anordnung für {} ist kein Pfad: {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>the layout of {} must end in {{path}} or {{file}}, so that names stay: {}</source>
            <translation>die Anordnung für {} muss mit {{path}} oder {{file}} enden, damit Namen bleiben: {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>the list of archives must lie inside the game's folder: {}</source>
            <translation>die Liste der Archive muss im Ordner des Spiels liegen: {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>{}: textures as files of their own, as {}</source>
            <translation>{}: Texturen als eigene Dateien, als {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/places.cpp" />
            <source>{}: the game's files, whole, as {}</source>
            <translation>{}: die Dateien des Spiels, ganz, als {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/project.cpp" />
            <source>Move the file away to start the project anew; work/ and vault/ stay as they are</source>
            <translation>Schiebe die Datei weg, um das Projekt neu zu beginnen; work/ und vault/ bleiben, wie sie sind</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/project.cpp" />
            <source>Put it away first, or deliver it under its own name</source>
            <translation>Lege es erst weg, oder liefere es unter seinem eigenen Namen</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/project.cpp" />
            <source>Work there, or close it first</source>
            <translation>Arbeite dort, oder schließe es zuerst</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/project.cpp" />
            <source>cannot set project.json aside</source>
            <translation>project.json lässt sich nicht beiseitelegen</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/project.cpp" />
            <source>delivered</source>
            <translation>geliefert</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/project.cpp" />
            <source>gone stale</source>
            <translation>veraltet</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/project.cpp" />
            <source>needs a mend</source>
            <translation>Nachbesserung nötig</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/project.cpp" />
            <source>on the bench</source>
            <translation>auf der Werkbank</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/project.cpp" />
            <source>out</source>
            <translation>heraus</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/project.cpp" />
            <source>process {}
</source>
            <translation>Prozess {}
</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/project.cpp" />
            <source>the file is damaged and cannot be read as a project</source>
            <translation>die Datei ist beschädigt und nicht als Projekt lesbar</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/project.cpp" />
            <source>the file lacks what a project has</source>
            <translation>der Datei fehlt, was ein Projekt hat</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/project.cpp" />
            <source>the project {} is open in another window{}</source>
            <translation>das Projekt {} ist in einem anderen Fenster offen{}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/project.cpp" />
            <source>{} is on the bench</source>
            <translation>{} liegt auf der Werkbank</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/saves.cpp" />
            <source>the project has no piece {}</source>
            <translation>das Projekt hat kein Stück {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/saves.cpp" />
            <source>{} is another piece's file</source>
            <translation>{} ist die Datei eines anderen Stücks</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/settings.cpp" />
            <source>They were set aside as {}</source>
            <translation>Sie wurden beiseitegelegt als {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/settings.cpp" />
            <source>the settings cannot be read, so those of a new installation are used</source>
            <translation>die Einstellungen sind nicht lesbar, also gelten die einer neuen Installation</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/shipped.cpp" />
            <source>gone</source>
            <translation>weg</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/shipped.cpp" />
            <source>moved</source>
            <translation>verschoben</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/sources.cpp" />
            <source>the sheet needs a name</source>
            <translation>das Blatt braucht einen Namen</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/taking.cpp" />
            <source>"{}" is on the bench already</source>
            <translation>„{}“ liegt schon auf der Werkbank</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/taking.cpp" />
            <source>Edit the texture itself</source>
            <translation>Bearbeite die Textur selbst</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/taking.cpp" />
            <source>the texture is spread over several files, and a variant of it would be, too</source>
            <translation>die Textur ist über mehrere Dateien verteilt, und eine Variante davon wäre es auch</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/try_on.cpp" />
            <source>ball</source>
            <translation>Kugel</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/try_on.cpp" />
            <source>cylinder</source>
            <translation>Zylinder</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/try_on.cpp" />
            <source>has its name</source>
            <translation>heißt wie sie</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/try_on.cpp" />
            <source>in the same folder</source>
            <translation>im selben Ordner</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/try_on.cpp" />
            <source>its material names {}</source>
            <translation>sein Material nennt {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/try_on.cpp" />
            <source>named {}, too</source>
            <translation>heißt auch {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/try_on.cpp" />
            <source>no level of it is there</source>
            <translation>keine ihrer Stufen ist da</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/try_on.cpp" />
            <source>plate</source>
            <translation>Platte</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/try_on.cpp" />
            <source>{} beside it names it</source>
            <translation>{} daneben nennt sie</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/try_on.cpp" />
            <source>{} stands in it</source>
            <translation>{} steht darin</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/update.cpp" />
            <source>Take the new one to the bench and paint on it</source>
            <translation>Hole die neue auf die Werkbank und male darauf</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/update.cpp" />
            <source>changed elsewhere</source>
            <translation>anderswo geändert</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/update.cpp" />
            <source>changed in the same place</source>
            <translation>an derselben Stelle geändert</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/update.cpp" />
            <source>compressed anew</source>
            <translation>neu gepackt</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/update.cpp" />
            <source>not in the game any more</source>
            <translation>nicht mehr im Spiel</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/update.cpp" />
            <source>ours is gone</source>
            <translation>unseres ist weg</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/update.cpp" />
            <source>put in again after an update</source>
            <translation>nach einem Update wieder hineingebracht</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/update.cpp" />
            <source>{} changed again since it was looked at</source>
            <translation>{} hat sich wieder geändert, seit es angesehen wurde</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/update.cpp" />
            <source>{} is not one picture of 8 bits, and the game has it in another form now</source>
            <translation>{} ist kein einzelnes Bild von 8 Bit, und das Spiel hat es jetzt in anderer Form</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/ways.cpp" />
            <source>Deliver it into the archive, or beside the game</source>
            <translation>Liefere es ins Archiv, oder neben das Spiel</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/ways.cpp" />
            <source>Let the layout of the device's files have {path} or {archive} in it</source>
            <translation>Lass die Anordnung der Dateien des Geräts {path} oder {archive} enthalten</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/ways.cpp" />
            <source>Put in the card, or connect the device, and look again</source>
            <translation>Stecke die Karte ein, oder schließe das Gerät an, und sieh noch einmal nach</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/ways.cpp" />
            <source>Say in the settings where it is</source>
            <translation>Sage in den Einstellungen, wo es ist</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/ways.cpp" />
            <source>no card or device is known</source>
            <translation>keine Karte und kein Gerät ist bekannt</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/ways.cpp" />
            <source>{} and {} would be one file on the device, {}</source>
            <translation>{} und {} wären eine Datei auf dem Gerät, {}</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/ways.cpp" />
            <source>{} is new to the game, and a patch archive holds only what replaces entries</source>
            <translation>{} ist für das Spiel neu, und ein Patch-Archiv enthält nur, was Einträge ersetzt</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/ways.cpp" />
            <source>{} stays as a parcel has it: what you painted meets it there</source>
            <translation>{} bleibt, wie ein Paket es hat: was du gemalt hast, trifft dort darauf</translation>
        </message>
        <message>
            <location filename="../../../src/workflow/ways.cpp" />
            <source>{}: "{}" changes the same place and gives way</source>
            <translation>{}: „{}“ ändert dieselbe Stelle und weicht</translation>
        </message>
    </context>
</TS>
