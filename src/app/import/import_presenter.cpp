// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/import/import_presenter.h"

#include "core/reading/given_beside.h"
#include "disk/file_bytes.h"
#include "service/local_day.h"

#include <QPointer>

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::app
{

ImportPresenter::ImportPresenter(ProjectSession &session, QObject *parent)
    : QObject(parent), m_session(session)
{
    connect(&session, &ProjectSession::projectChanged, this, [this] {
        m_bringingIn = false;
        m_gaveWay.clear();
        clear();
    });
    connect(&session, &ProjectSession::readingsChanged, this, &ImportPresenter::tellWhatGaveWay);
    connect(&session.rawIntake(), &RawIntake::progressed, this, [this](int done, int all) {
        if (m_bringingIn)
            emit progressed(done, all);
    });
    m_loading.onProgress([this](int done, int all) { emit progressed(done, all); });
}

std::optional<Method> ImportPresenter::test() const
{
    const Study *study = m_session.study();
    if (study == nullptr)
        return std::nullopt;
    return m_test && findTest(*study, *m_test) != nullptr ? *m_test : methodOf(*study);
}

void ImportPresenter::setTest(const std::optional<Method> &test)
{
    if (m_test == test)
        return;
    m_test = test;
    QStringList paths;
    for (const Entry &entry : entries())
        paths << QString::fromStdString(entry.file.path);
    clear();
    addPaths(paths);
}

const Reduction *ImportPresenter::reduction() const
{
    const std::optional<Method> wanted = test();
    return wanted ? reductionOf(*wanted) : nullptr;
}

void ImportPresenter::addPaths(const QStringList &paths)
{
    cancelLoading();
    if (paths.isEmpty())
        return;
    const Reduction *wanted = reduction();
    if (wanted == nullptr) {
        if (const std::optional<Method> unread = test())
            m_session.tell(
                invalidArgument(fmt::format("records of {} cannot be read yet", methodName(*unread))));
        return;
    }
    std::vector<std::string> files;
    for (const QString &path : paths) {
        const Result<std::vector<std::string>> found = filesAt(path.toStdString());
        if (!m_session.tell(found ? ok() : Status(found.error())))
            continue;
        for (const std::string &file : *found) {
            if (!m_list.holds(file))
                files.push_back(file);
        }
        if (found->empty())
            m_session.tell(invalidArgument(fmt::format("{}: the folder holds no file", path.toStdString())));
    }
    if (files.empty())
        return;
    // What a test makes fail is one file: "loading" in loadRecords().
    m_loading.begin(
        "files", [files, wanted](const TaskControl &control) { return loadRecords(files, *wanted, control); },
        [this](Result<std::vector<ImportFile>> loaded) {
            m_session.tell(loaded ? ok() : Status(loaded.error()));
            takeLoaded(loaded ? std::move(*loaded) : std::vector<ImportFile>());
        });
    emit loadingChanged();
}

void ImportPresenter::takeLoaded(std::vector<ImportFile> files)
{
    m_list.add(std::move(files), m_session.project());
    if (m_session.study() != nullptr)
        m_list.matchByUsualPatterns(*m_session.study(), *test());
    emit loadingChanged();
    emit changed();
}

void ImportPresenter::cancelLoading()
{
    if (!m_loading.isRunning())
        return;
    m_loading.forget();
    emit loadingChanged();
}

void ImportPresenter::clear()
{
    cancelLoading();
    m_list.clear();
    emit changed();
}

QString ImportPresenter::knownText(const Entry &entry)
{
    if (!entry.known)
        return {};
    const QString name = QString::fromStdString(entry.known->name);
    return entry.known->addedAt.empty()
               ? tr("the same bytes as %1 in this list").arg(name)
               : tr("already in this project as %1, since %2").arg(name, localDay(entry.known->addedAt));
}

void ImportPresenter::matchByPattern(const QString &pattern)
{
    if (m_session.study() == nullptr ||
        !m_session.tell(m_list.matchByPattern(*m_session.study(), *test(), pattern.toStdString())))
        return;
    emit changed();
}

void ImportPresenter::matchInOrder()
{
    if (m_session.study() == nullptr)
        return;
    m_list.matchInOrder(*m_session.study(), *test());
    emit changed();
}

void ImportPresenter::unmatchAll()
{
    if (m_session.study() == nullptr)
        return;
    m_list.unmatchAll(*m_session.study(), *test());
    emit changed();
}

void ImportPresenter::assign(std::size_t index, std::optional<PieceId> piece)
{
    if (m_session.study() != nullptr && m_session.tell(m_list.assign(*m_session.study(), index, piece)))
        emit changed();
}

void ImportPresenter::setMapping(std::size_t index, const ColumnMapping &mapping)
{
    m_list.setMapping(index, mapping);
    if (m_session.study() != nullptr)
        m_list.matchMended(*m_session.study(), *test());
    emit changed();
}

void ImportPresenter::setTable(std::size_t index, std::optional<std::size_t> table)
{
    setMapping(index, {table, {}});
}

QString ImportPresenter::tableText(const ImportFile &file, std::size_t index)
{
    const FileTable &table = file.tables.at(index);
    QStringList headings;
    for (const std::string &heading : table.headings)
        headings << QString::fromStdString(heading);
    if (!table.specimen.empty())
        return tr("specimen %1, line %2").arg(QString::fromStdString(table.specimen)).arg(table.line);
    const QString where = table.sheet.empty() ? tr("table %1, line %2").arg(index + 1).arg(table.line)
                                              : QString::fromStdString(table.sheet);
    return where + QStringLiteral(": ") + headings.join(QStringLiteral(", "));
}

bool ImportPresenter::canBringIn(const Entry &entry) const
{
    return IntakeList::canBringIn(entry);
}

std::size_t ImportPresenter::readyCount() const
{
    return static_cast<std::size_t>(
        std::count_if(entries().begin(), entries().end(), &IntakeList::canBringIn));
}

QString ImportPresenter::stateText(const Entry &entry) const
{
    if (entry.file.problem)
        return QString::fromStdString(errorSentence(*entry.file.problem));
    QString text = entry.file.reduction->columns.empty()
                       ? tr("%1 rows").arg(entry.file.rows)
                       : tr("%1 rows, up to %2")
                             .arg(entry.file.rows)
                             .arg(QString::fromStdString(
                                 m_session.notation().quantity(entry.file.largest, entry.file.largestOf, 4)));
    if (!entry.file.mapping.columns.empty() || (entry.file.mapping.table && !entry.file.specimen))
        text += tr("; columns as you set them");
    if (const QString known = knownText(entry); !known.isEmpty())
        text += QStringLiteral("; ") + known;
    if (!entry.file.warnings.empty())
        text += QStringLiteral("; ") + QString::fromStdString(entry.file.warnings.front());
    return text;
}

bool ImportPresenter::isAsked(const ImportFile &file)
{
    if (!file.problem || !file.layout)
        return false;
    const auto isOpen = [](const Column &column) { return !column.question.empty(); };
    return !file.layout->question.empty() || !file.layout->doubt.empty() ||
           std::any_of(file.layout->columns.begin(), file.layout->columns.end(), isOpen);
}

QString ImportPresenter::placeText(const Entry &entry) const
{
    const Piece *piece =
        entry.piece && m_session.study() != nullptr ? findPiece(*m_session.study(), *entry.piece) : nullptr;
    if (piece == nullptr)
        return entry.dealt.empty() ? QString() : tr("%1 pegs by code").arg(entry.dealt.size());
    const QString code = QString::fromStdString(piece->code);
    switch (entry.how) {
    case How::Name:
        return tr("%1 by name").arg(code);
    case How::Order:
        return tr("%1 by order").arg(code);
    default:
        return tr("%1 by hand").arg(code);
    }
}

QString ImportPresenter::summary() const
{
    if (entries().empty())
        return tr("No files yet: choose some, or drop files or a folder anywhere on this window.");
    const auto bad = std::count_if(entries().begin(), entries().end(),
                                   [](const Entry &entry) { return entry.file.problem.has_value(); });
    const auto open =
        static_cast<std::ptrdiff_t>(entries().size()) - bad - static_cast<std::ptrdiff_t>(readyCount());
    QString text = tr("%1 files: %2 ready").arg(entries().size()).arg(readyCount());
    if (open > 0)
        text += tr(", %1 without a peg").arg(open);
    if (bad > 0)
        text += tr(", %1 that cannot be read").arg(bad);
    return text;
}

void ImportPresenter::bringIn()
{
    if (isBusy())
        return;
    std::vector<RawFileToKeep> files;
    for (const Entry &entry : entries()) {
        if (canBringIn(entry))
            files.push_back({{}, fileNameOf(entry.file.path), {}, entry.file.bytes});
    }
    if (files.empty())
        return;
    m_bringingIn = m_session.tell(
        m_session.keepRawFiles(std::move(files), [self = QPointer(this), study = m_session.study()->id,
                                                  ready = m_list.ready()](const auto &kept) {
            if (self != nullptr)
                self->linkKept(study, ready, kept);
        }));
    emit loadingChanged();
}

void ImportPresenter::cancelBringingIn()
{
    if (m_bringingIn)
        m_session.rawIntake().cancel();
}

/// Links the files that are kept by now, whatever study the person has gone to meanwhile.
void ImportPresenter::linkKept(StudyId study, std::vector<IntakeList::Ready> ready, const KeptRawFiles &kept)
{
    m_bringingIn = false;
    emit loadingChanged();
    m_session.tell(kept.status);
    ready.resize(kept.ids.size());
    if (ready.empty() || !m_session.tell(rememberMappings(m_session.project(), ready, ready.size())))
        return;
    std::map<PieceId, Recording> recordings;
    for (std::size_t i = 0; i < ready.size(); ++i) {
        for (PieceId piece : ready[i].pieces)
            recordings[piece] = Recording{kept.ids[i], ready[i].mapping, {}};
    }
    std::map<PieceId, GivenRow> gaveWay;
    if (m_session.study() != nullptr && m_session.study()->id == study) {
        for (const auto &[id, recording] : recordings) {
            const Piece *piece = findPiece(*m_session.study(), id);
            if (piece != nullptr && isGiven(*piece) && !recording.mapping.given)
                gaveWay[id] = *piece->recording->mapping.given;
        }
    }
    const QString step = tr("bring in %1 records").arg(recordings.size());
    const bool linked = m_session.tell(m_session.editStudy(study, step, [&](Study &changed) {
        return linkRecords(changed, recordings, m_session.workshop(), m_session.today());
    }));
    if (!linked)
        return;
    m_list.take(ready);
    m_gaveWay.merge(gaveWay);
    emit changed();
    tellWhatGaveWay();
    emit broughtIn(recordings.size());
}

/// Each piece once, when its record is read; the first ones by name.
void ImportPresenter::tellWhatGaveWay()
{
    const Study *study = m_session.study();
    QStringList told;
    for (auto at = m_gaveWay.begin(); at != m_gaveWay.end();) {
        const Piece *piece = study != nullptr ? findPiece(*study, at->first) : nullptr;
        const auto found = m_session.readings().find(at->first);
        const bool isGone = piece == nullptr || !piece->recording || isGiven(*piece);
        const bool isRead = !isGone && found != m_session.readings().end() && found->second;
        if (isRead && *found->second) {
            const std::string text = givenBesideText(at->second, (**found->second).result,
                                                     *reductionOf(piece->test), m_session.notation());
            if (!text.empty())
                told << tr("%1: %2").arg(QString::fromStdString(piece->code), QString::fromStdString(text));
        }
        at = isGone || isRead ? m_gaveWay.erase(at) : std::next(at);
    }
    if (told.isEmpty())
        return;
    constexpr int kMostTold = 3;
    QString sentence = told.mid(0, kMostTold).join(QStringLiteral("; "));
    if (told.size() > kMostTold)
        sentence += tr("; and %1 more").arg(told.size() - kMostTold);
    emit givenBeside(tr("Records took the place of given values. %1.").arg(sentence));
}

} // namespace inchpeg::app
