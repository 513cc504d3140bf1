// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "service/intake/intake_list.h"

#include <QObject>
#include <QStringList>

#include <vector>

namespace inchpeg::app
{

/// Files on their way into the study: how each is understood, and which peg it is for. Nothing enters the
/// project before bringIn().
class ImportPresenter : public QObject
{
    Q_OBJECT
public:
    using How = IntakeList::How;
    using Entry = IntakeList::Entry;

    explicit ImportPresenter(ProjectSession &session, QObject *parent = nullptr);

    /// The test that the files are records of, as in Piece::test; files of another test are read anew.
    [[nodiscard]] std::optional<Method> test() const;
    void setTest(const std::optional<Method> &test);
    /// How records of that test are read; nullptr without a study, or where they are not.
    [[nodiscard]] const Reduction *reduction() const;

    /// Reads files, or the files of folders, in other threads.
    void addPaths(const QStringList &paths);
    [[nodiscard]] bool isLoading() const { return m_loading.isRunning(); }
    void cancelLoading();
    void clear();

    [[nodiscard]] const std::vector<Entry> &entries() const { return m_list.entries(); }
    /// Where the same bytes are in the project or in the list already, else empty.
    [[nodiscard]] static QString knownText(const Entry &entry);
    [[nodiscard]] QString stateText(const Entry &entry) const;
    /// Whether a file leaves something open that its columns answer once they are taken as they are shown:
    /// two units, a heading of another width, results where a record is wanted.
    [[nodiscard]] static bool isAsked(const ImportFile &file);
    [[nodiscard]] QString placeText(const Entry &entry) const;
    [[nodiscard]] bool canBringIn(const Entry &entry) const;
    [[nodiscard]] std::size_t readyCount() const;
    [[nodiscard]] QString summary() const;

    /// Understands a file as the person says, and every other file of the same shape with it.
    void setMapping(std::size_t index, const ColumnMapping &mapping);
    /// Reads a file by another of its tables (from 1), its columns as found there; nothing: as found.
    void setTable(std::size_t index, std::optional<std::size_t> table);
    [[nodiscard]] static QString tableText(const ImportFile &file, std::size_t index);

    [[nodiscard]] QString pattern() const { return QString::fromStdString(m_list.pattern()); }
    void matchByPattern(const QString &pattern);
    void matchInOrder();
    void unmatchAll();
    /// Gives a file to a piece by hand; a file that had the piece loses it. Nothing takes it away.
    void assign(std::size_t index, std::optional<PieceId> piece);

    /// Keeps the raw bytes in another thread, then links them to their pieces, as one step, and takes them
    /// off the list. A refusal is told by the session.
    void bringIn();
    [[nodiscard]] bool isBringingIn() const { return m_bringingIn; }
    [[nodiscard]] bool isBusy() const { return isLoading() || isBringingIn(); }
    void cancelBringingIn();

signals:
    void changed();
    void loadingChanged();
    void progressed(int done, int total);
    /// So many records came in.
    /// A record took the place of given values, and was read: how far they differ.
    void givenBeside(const QString &sentence);
    void broughtIn(std::size_t count);

private:
    void takeLoaded(std::vector<ImportFile> files);
    void linkKept(StudyId study, std::vector<IntakeList::Ready> ready, const KeptRawFiles &kept);

    void tellWhatGaveWay();

    ProjectSession &m_session;
    std::map<PieceId, GivenRow> m_gaveWay; ///< values whose record is not read yet
    IntakeList m_list;
    std::optional<Method> m_test;
    bool m_bringingIn = false;
    Task<std::vector<ImportFile>> m_loading;
};

} // namespace inchpeg::app
