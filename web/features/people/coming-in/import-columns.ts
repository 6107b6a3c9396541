import { type ImportField, importFields } from '#contract/import-fields.ts'
import type { ImportRow } from '#contract/requests.ts'

/**
 * Under what columns are known, besides the word that is shown: in English, German, French, Spanish and Dutch, written
 * plainly, without marks on letters.
 */
const known: Readonly<Record<ImportField, { readonly word: string; readonly heads: readonly string[] }>> = {
  mail: {
    word: 'Mail',
    heads: [
      ...['e mail', 'email', 'mail address', 'email address', 'address', 'e mail address'],
      ...['e mail adresse', 'mailadresse', 'mail adresse', 'emailadresse'],
      ...['courriel', 'adresse e mail', 'adresse mail', 'adresse electronique'],
      ...['correo', 'correo electronico', 'direccion de correo'],
      ...['e mailadres', 'mailadres', 'emailadres'],
    ],
  },
  name: {
    word: 'Name',
    heads: [
      ...['full name', 'display name', 'person', 'vollstandiger name'],
      ...['nom', 'nom complet', 'nombre', 'nombre completo', 'naam', 'volledige naam'],
    ],
  },
  handle: {
    word: 'Handle',
    heads: [
      ...['nickname', 'user name', 'username', 'login', 'kurzel', 'benutzername', 'anmeldename'],
      ...['identifiant', 'pseudo', 'nom d utilisateur', 'usuario', 'nombre de usuario', 'gebruikersnaam'],
    ],
  },
  title: {
    word: 'Title',
    heads: [
      ...['job title', 'function', 'position', 'titel', 'funktion', 'stelle', 'titre', 'fonction', 'poste'],
      ...['titulo', 'cargo', 'puesto', 'functie'],
    ],
  },
  department: {
    word: 'Department',
    heads: [
      ...['organisation', 'organization', 'unit', 'company', 'abteilung', 'firma', 'service', 'departement'],
      ...['societe', 'departamento', 'organizacion', 'empresa', 'afdeling', 'organisatie', 'bedrijf'],
    ],
  },
  country: { word: 'Country', heads: ['nation', 'land', 'pays', 'pais'] },
  as: {
    word: 'Kind',
    heads: [
      ...['comes as', 'type', 'member or guest', 'art', 'typ', 'mitglied oder gast', 'membre ou invite'],
      ...['tipo', 'miembro o invitado', 'soort', 'lid of gast'],
    ],
  },
  role: { word: 'Role', heads: ['roles', 'rolle', 'rollen', 'rol'] },
  teams: {
    word: 'Teams',
    heads: [
      ...['team', 'groups', 'group', 'gruppe', 'gruppen', 'equipe', 'equipes', 'groupe', 'groupes'],
      ...['equipo', 'equipos', 'grupo', 'grupos', 'groep', 'groepen'],
    ],
  },
  until: {
    word: 'Ends',
    heads: [
      ...['last day', 'until', 'end', 'end date', 'through', 'letzter tag', 'bis', 'ende', 'enddatum'],
      ...['dernier jour', 'jusqu au', 'fin', 'date de fin', 'ultimo dia', 'hasta', 'fecha de fin'],
      ...['laatste dag', 'tot', 'einde', 'einddatum'],
    ],
  },
}

/** Small letters without marks, words apart by one space: “E-Mail” and “e_mail” are one. */
const plainly = (head: string): string =>
  head
    .normalize('NFD')
    .replaceAll(/\p{M}/gu, '')
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()

export const fieldWord = (field: ImportField): string => known[field].word

/** Which field each column of a table is: `null` for one that is left aside. */
export type Mapping = readonly (ImportField | null)[]

/** By the names of the columns; a field is taken from the first that fits. */
export function mappingFor(heads: readonly string[]): Mapping {
  const taken = new Set<ImportField>()
  return heads.map(head => {
    const plain = plainly(head)
    const field = importFields.find(
      each =>
        !taken.has(each) && (known[each].word.toLowerCase() === plain || known[each].heads.includes(plain)),
    )
    if (field !== undefined) taken.add(field)
    return field ?? null
  })
}

export const rowFrom = (cells: readonly string[], mapping: Mapping): ImportRow =>
  Object.fromEntries(
    mapping.flatMap((field, index) => (field === null ? [] : [[field, (cells[index] ?? '').slice(0, 2000)]])),
  )
