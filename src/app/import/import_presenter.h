// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "core/logbook/file_matching.h"
#include "service/beside/task.h"
#include "service/import_file.h"

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
    enum class How { Nobody, Name, Order, Hand };
    struct Entry {
        ImportFile file;
        std::optional<PieceId> piece;
        std::vector<PieceId> dealt; ///< of a table with a row a specimen: the pieces that its codes name
        How how = How::Nobody;
        QString knownAs; ///< where the same bytes are in the project or in the list already, else empty
    };

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

    [[nodiscard]] const std::vector<Entry> &entries() const { return m_entries; }
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

    [[nodiscard]] QString pattern() const { return m_pattern; }
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
    void broughtIn(std::size_t count);

private:
    /// A file that is ready, as it was when it was sent on its way.
    struct Ready {
        std::string path; ///< of the entry
        std::optional<std::size_t> specimen;
        std::vector<PieceId> pieces;
        ColumnMapping mapping;
        std::string layout; ///< signature, where the mapping is to be remembered
    };
    void takeLoaded(std::vector<ImportFile> files);
    void linkKept(StudyId study, const std::vector<Ready> &ready, const KeptRawFiles &kept);
    Status rememberMappings(const std::vector<Ready> &ready, std::size_t count);
    void noticeKnownFiles();
    void matchByUsualPatterns();
    void dealRows(Entry &entry) const;
    [[nodiscard]] std::vector<std::string> matchableNames(std::vector<std::size_t> &indices) const;
    void applyMatches(const std::vector<std::size_t> &indices, const FileMatches &matches, How how);

    ProjectSession &m_session;
    std::vector<Entry> m_entries;
    QString m_pattern;
    std::optional<Method> m_test;
    bool m_bringingIn = false;
    Task<std::vector<ImportFile>> m_loading;
};

} // namespace inchpeg::app
